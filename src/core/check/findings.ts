import { bodyOf, type SizedBody } from "@/core/sizes/body";
import { featuresOf, type Feature } from "@/core/sizes/features";
import type { Lettering } from "@/core/sizes/lettering";
import type { Comparison } from "./comparison";
import type { FeatureFinding } from "./finding";
import type { CheckContext } from "./kinds/context";
import { shiftWords } from "./words";

/** The reference's things by name, made once for each reference. */
export interface NamedBody {
  readonly body: SizedBody;
  readonly features: readonly Feature[];
}

export const namedBody = (part: CheckContext["reference"], lettering: Lettering): NamedBody => {
  const body = bodyOf(part.faces, part.properties.box);
  return { body, features: featuresOf(body, lettering) };
};

/** Faces that may be anywhere: left to the student's judgement. */
export type Free = ReadonlySet<number>;

/**
 * What is missing, moved, of another size or too much, gathered into the things a person sees.
 * @param near how far a face may be elsewhere and still count as there, mm
 */
export function findingsOf(
  named: NamedBody,
  submission: NamedBody | undefined,
  comparison: Comparison,
  near: (area: number) => number,
  free: Free,
): FeatureFinding[] {
  const { body, features } = named;
  const { faces, extra } = comparison.faces;
  const list = features.flatMap((f): FeatureFinding[] => {
    const own = f.surfaces.filter((s) => !free.has(s)).map((s) => ({ s, state: faces[s]! }));
    const at = body.surfaces[f.surfaces[0]!]!.centre;
    if (own.some(({ state }) => state?.state === "missing")) {
      const gone = own.every(({ state }) => state?.state === "missing");
      const isPart = !gone && own.length > 1 && own[0]!.state.state !== "missing";
      return [{ name: isPart ? `part of ${f.name}` : f.name, state: "missing", at }];
    }
    const changed = own.filter(({ s, state }) => state?.state === "changed" && state.by > near(body.surfaces[s]!.area));
    const [first] = changed;
    if (first?.state.state !== "changed") return [];
    const { grown, at: k } = first.state;
    const was = body.surfaces[first.s]!.carrier,
      is = comparison.placed[k]!.carrier;
    const way = shiftWords(was, is);
    return [{ name: f.name, state: "changed", at, ...(grown && { grown }), ...(way && { moved: way }) }];
  });
  const more = new Set(extra);
  const added = (submission?.features ?? []).flatMap((f): FeatureFinding[] => {
    const own = f.surfaces.filter((s) => more.has(s));
    if (!own.length || own[0] !== f.surfaces[0]) return [];
    return [{ name: f.name.replace(/^the /, "a "), state: "extra", at: comparison.placed[own[0]!]!.centre }];
  });
  return [...list, ...added];
}
