import type { FeatureFinding } from "../../findings/finding";
import type { Deviation } from "../../facets/deviation";
import { freeFaces } from "../../faces/free";
import type { CheckContext } from "../context";
import type { ShapeEvidence } from "./kind";

type Found = Pick<ShapeEvidence, "verdict" | "off" | "deviation" | "typical" | "features" | "mesh">;

/** The shape of a part that came as a mesh: by how far its facets lie from the reference, thing by thing. */
export function facetsEvidence(context: CheckContext, d: Deviation): Found {
  const { comparison, exercise, named, reference } = context;
  const measured = { mesh: true as const, deviation: d.most, typical: d.typical };
  const limit = 2 * exercise.tolerances.shape;
  if (comparison.finding === "scaled") return { ...measured, verdict: "missed", off: 1, features: [] };
  const free = freeFaces(context);
  // where a hole is too wide the flat face around it ends too early: that is the hole's fault
  const isCut = (s: number) =>
    reference.faces[s]!.carrier.kind === "plane" &&
    reference.faces[s]!.beside.some((o) => d.faces[o]!.beyond > 0 && d.faces[o]!.most >= d.faces[s]!.most);
  const isOff = (s: number) => !(d.faces[s]!.most <= (free.get(s) ?? 0)) && d.faces[s]!.beyond > 0 && !isCut(s);
  const features = named.features.flatMap((f): FeatureFinding[] => {
    const off = Math.max(0, ...f.surfaces.filter(isOff).map((s) => d.faces[s]!.most));
    return off ? [{ name: f.name, state: "changed", off, at: named.body.surfaces[f.surfaces[0]!]!.centre }] : [];
  });
  const isWrong = features.length > 0 || comparison.finding === "mirrored";
  const share = d.volume / reference.properties.volume;
  return { ...measured, verdict: isWrong ? "missed" : "met", off: isWrong ? Math.max(share, limit) : share, features };
}
