import { parseEdge, parseFace } from "@/core/naming/names";

/** How a named face is called: "The side of extrude1 over l2", "The end of extrude1". */
export function faceText(key: string): string {
  const { step, role, of = "" } = parseFace(key);
  switch (role) {
    case "side":
      return `The side of ${step} over ${of}`;
    case "round":
      return `The rounding ${of} of ${step}`;
    case "bevel":
      return `The chamfer ${of} of ${step}`;
    case "inner":
      return `The inside of ${lower(faceText(of))}`;
    case "image":
    case "copy":
      return `The image in ${step} of ${lower(faceText(of))}`;
    default:
      return `The ${role} of ${step}${of ? ` (${of})` : ""}`;
  }
}
const lower = (s: string) => s.replace(/^The /, "the ");

/** How an edge is called. */
export const edgeText = (key: string): string =>
  `The edge between ${parseEdge(key)
    .map((k) => lower(faceText(k)))
    .join(" and ")}`;
