import { bodyOf, type SizedBody } from "@/core/sizes/body";
import { featuresOf, type Feature } from "@/core/sizes/features";
import type { Free } from "@/core/sizes/free";
import type { Lettering } from "@/core/sizes/lettering";
import type { Size } from "@/core/sizes/size";
import type { Comparison } from "../faces/comparison";
import type { Surface } from "@/core/measure/surfaces";
import { between, gapOf } from "../faces/correspond";
import type { FeatureFinding } from "./finding";
import { isLeftFree } from "../faces/free";
import type { MeasuredReference } from "../given/measured";
import { SHIFTED } from "../tolerance";
import { shiftWords } from "./words";

/** The reference's things by name, made once for each reference. */
export interface NamedBody {
  readonly body: SizedBody;
  readonly features: readonly Feature[];
}

export const namedBody = (part: MeasuredReference, lettering: Lettering): NamedBody => {
  const body = bodyOf(part.faces, part.properties.box);
  return { body, features: featuresOf(body, lettering) };
};

/** The same things called by their sizes as a drawing letters them, where it letters some in a way of their own. */
export function calledAsPrinted(named: NamedBody, sizes: readonly Size[], lettering: Lettering): NamedBody {
  const isOwn = ({ lettering: own }: Size) => own?.digits !== undefined || own?.fractions !== undefined;
  if (!lettering.fractions && !sizes.some(isOwn)) return named;
  return { body: named.body, features: featuresOf(named.body, lettering, sizes) };
}

/** What stands on the faces beside it. */
const FOLLOWING: ReadonlySet<Feature["kind"]> = new Set(["fillet", "rounding", "chamfer"]);

/** A flat face is known by its side: no two are alike. */
const likeOf = ({ kind, called }: Feature, all: readonly Feature[]): Pick<FeatureFinding, "like"> =>
  kind === "face" ? {} : { like: { called, of: all.filter((o) => o.called === called).length } };

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
  const following = new Set(features.flatMap((f) => (FOLLOWING.has(f.kind) ? f.surfaces : [])));
  const isOff = (s: number) => {
    const state = faces[s]!;
    return state.state === "changed" && state.by > near(body.surfaces[s]!.area);
  };
  const leads = (s: number) => !following.has(s) && isOff(s);
  const list = features.flatMap((feature): FeatureFinding[] => {
    const like = likeOf(feature, features);
    const own = feature.surfaces.map((s) => ({ s, state: faces[s]! })).filter((o) => !isLeftFree(free, o.s, o.state));
    const at = body.surfaces[feature.surfaces[0]!]!.centre;
    if (own.some(({ state }) => state?.state === "missing")) {
      const gone = own.every(({ state }) => state?.state === "missing");
      const isPart = !gone && own.length > 1 && own[0]!.state.state !== "missing";
      return [
        isPart
          ? { name: `part of ${feature.name}`, state: "missing", at }
          : { name: feature.name, ...like, state: "missing", at },
      ];
    }
    const first = own.find(({ s }) => isOff(s));
    if (first?.state.state !== "changed") return [];
    const { at: k } = first.state,
      grown = Math.abs(first.state.grown) > SHIFTED ? first.state.grown : 0;
    const was = body.surfaces[first.s]!.carrier,
      is = comparison.placed[k]!.carrier;
    const moved = shiftWords(was, is);
    // what goes along with a face beside it is that face's fault
    if (!grown && FOLLOWING.has(feature.kind) && body.surfaces[first.s]!.beside.some(leads)) return [];
    const off = !moved && !grown && was.kind !== "plane" && first.state.by;
    return [
      {
        name: feature.name,
        ...like,
        state: "changed",
        at,
        ...(grown && { grown }),
        ...(moved && { moved }),
        ...(off && { off }),
      },
    ];
  });
  // what lies within the tolerance of a face that is asked for is a piece of it, and so is the sliver beside it
  const isPiece = (k: number) => {
    const s = comparison.placed[k]!,
      most = near(s.area);
    const isOn = (r: Surface) => (gapOf(r, s, body.size)?.by ?? Infinity) <= most && between(r, s) <= most;
    return 2 * s.area <= most * s.rim || body.surfaces.some(isOn);
  };
  const more = new Set(extra.filter((k) => !isPiece(k)));
  const others = submission?.features ?? [];
  const added = others.flatMap((f): FeatureFinding[] => {
    const own = f.surfaces.filter((s) => more.has(s));
    if (!own.length || own[0] !== f.surfaces[0]) return [];
    const name = f.name.replace(/^the (?=([aeiou])?)/, (_, vowel?: string) => (vowel ? "an " : "a "));
    return [{ name, ...likeOf(f, others), state: "extra", at: comparison.placed[own[0]!]!.centre }];
  });
  return [...list, ...added];
}
