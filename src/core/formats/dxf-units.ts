/** Units of the header variable $INSUNITS (DXF reference): millimetres per unit. */
export const UNITS: Record<number, readonly [string, number]> = {
  1: ["in", 25.4],
  2: ["ft", 304.8],
  3: ["miles", 1_609_344],
  4: ["mm", 1],
  5: ["cm", 10],
  6: ["m", 1000],
  7: ["km", 1e6],
  8: ["microinches", 2.54e-5],
  9: ["mils", 0.0254],
  10: ["yards", 914.4],
  11: ["ångström", 1e-7],
  12: ["nm", 1e-6],
  13: ["µm", 0.001],
  14: ["dm", 100],
  15: ["decametres", 1e4],
  16: ["hectometres", 1e5],
};
/** Named, but no drawing of a part is measured in them. */
export const TOO_FAR: Record<number, string> = {
  17: "gigametres",
  18: "astronomical units",
  19: "light years",
  20: "parsecs",
};
