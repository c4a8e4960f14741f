/** Layers by which construction and centre lines survive a round trip through our own files. */
export const DXF_LAYERS = { sketch: "SKETCH", construction: "CONSTRUCTION", centre: "CENTRE-LINE" } as const;
