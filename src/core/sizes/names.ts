import type { SizedBody } from "./body";
import type { Feature } from "./features";
import { sizeKind, type Size } from "./kinds/kinds";

/** What the things on a part are called. */
export interface Names {
  /** The thing that a face belongs to: "the hole ⌀9 at the left". */
  one(face: string): string;
  /** Several at once: "the 4 holes ⌀9" where those are all there are. */
  all(faces: readonly string[]): string;
  /** What all that are like it are called, without their places: "holes ⌀9". */
  like(face: string): string | undefined;
}

/** So many unlike things are each named. */
const MOST_NAMED = 3;

/** Looks up what the things that faces belong to are called. */
export function namesOfFaces(body: SizedBody, features: readonly Feature[]): Names {
  const by = new Map<string, Feature>();
  for (const f of features) for (const s of f.surfaces) for (const key of body.surfaces[s]!.keys) by.set(key, f);
  const one = (face: string) => by.get(face)?.name ?? "a face";
  const all = (faces: readonly string[]): string => {
    const own = [...new Set(faces.map((f) => by.get(f)))].filter((f) => f !== undefined);
    const [first] = own;
    if (!first) return "a face";
    const alike = features.filter((f) => f.called === first.called);
    if (own.length > 1 && own.length === alike.length && own.every((f) => f.called === first.called))
      return `the ${own.length} ${plural(first.called)}`;
    if (own.length < 3) return own.map((f) => f.name).join(" and ");
    const others = own.length - 1;
    if (own.every((f) => f.called === first.called)) return `${first.name} and ${others} like it`;
    return own.length > MOST_NAMED
      ? `${first.name} and ${others} others`
      : `${own
          .slice(0, -1)
          .map((f) => f.name)
          .join(", ")} and ${own.at(-1)!.name}`;
  };
  const like = (face: string) => {
    const thing = by.get(face);
    return thing && plural(thing.called);
  };
  return { one, all, like };
}

/** "inner fillet R6" to "inner fillets R6", "floor of the pocket" to "floors of the pocket". */
export const plural = (base: string): string => base.replace(/^.*?(?= of | [⌀R\d]|$)/, "$&s");

/** What a size is called in a sentence: "the diameter of the hole ⌀9 at the left", "the distance from … to …". */
export function nameOfSize(size: Size, { one, all }: Names): string {
  const { noun } = sizeKind(size);
  switch (size.kind) {
    case "distance":
      return `${noun} from ${end([size.from], one, all)} to ${end([size.to, ...(size.also ?? [])], one, all)}`;
    case "angle":
      return `${noun} between ${end([size.from], one, all)} and ${end([size.to], one, all)}`;
    case "turn":
      return `${noun} from ${one(size.from)} to ${one(size.to)} about ${one(size.about)}`;
    case "diameter":
      return `${noun} of ${all(size.of.map((a) => a[0]!))}`;
    case "chamfer":
      return `the size of ${all(size.of.map((b) => b.slant))}`;
    case "depth":
      return `${noun} of ${all(size.of.map((h) => h.bore))}`;
    case "counterbore":
      return `${noun} of ${all(size.of.map((h) => h.wall))}`;
    case "countersink":
      return `${noun} of ${all(size.of.map((h) => h.cone))}`;
    case "wall":
      return "the thickness of the wall";
    case "slot":
      return `the length and width of ${all(size.of.map((s) => s[0]))}`;
    case "ellipse":
      return `the ${size.only ? `${size.only} axis` : "axes"} of ${all(size.of)}`;
    case "cone": {
      const name = all(size.of);
      return name.startsWith("the cone") ? `the angle of ${name}` : `${noun} of ${name}`;
    }
    case "arc":
      return `${noun} of ${one(size.of)}`;
    default:
      return `${noun} of ${all(size.of)}`;
  }
}

/** An end of a distance: a face, or where faces meet. */
function end(anchors: readonly (readonly string[])[], one: Names["one"], all: Names["all"]): string {
  const [first] = anchors;
  if (first!.length > 1) return `where ${first!.map(one).join(" meets ")}`;
  return anchors.length > 1 ? all(anchors.map((a) => a[0]!)) : one(first![0]!);
}
