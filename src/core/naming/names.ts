/**
 * How faces, edges, regions and pictures of the part are written. Nobody else splits or joins these texts.
 *
 * A face reads `STEP/ROLE` or `STEP/ROLE/OF`; OF may be a name again (`mirror1/image/extrude1/side/l2`). An edge reads
 * `FACE|FACE`, the lesser first. Several that share a name are told apart in lists by a mark: `~2`, `~3`.
 */

declare const brand: unique symbol;
type Written<Kind extends string> = string & { readonly [brand]: Kind };

/** The written form of a face's name. */
type FaceKey = Written<"face">;
/** The written form of an edge's name. */
type EdgeKey = Written<"edge">;
/** What a sketch can show of a part: an edge, the outline of a round face, where its plane cuts a face. */
type PictureKey = Written<"picture">;

/**
 * How a face came to be: which step made it, in which role, from what. `of` is a sketch curve for faces that rose
 * from one, the name of another face for its offsets and images, an id of the step's own otherwise.
 */
export interface FaceName {
  readonly step: string;
  readonly role: string;
  readonly of?: string;
}

export const formatFace = (n: FaceName): FaceKey =>
  (n.of === undefined ? `${n.step}/${n.role}` : `${n.step}/${n.role}/${n.of}`) as FaceKey;

/** Reads a face's name; a mark is left out. */
export function parseFace(key: string): FaceName {
  const [step = "", role = "", ...of] = unmarked(key).split("/");
  return of.length ? { step, role, of: of.join("/") } : { step, role };
}

/** What a copy in a pattern is of: its place, and the face there. */
export function parseCopy(of: string): { readonly place: string; readonly face: string } {
  const [place = "", ...face] = of.split("/");
  return { place, face: face.join("/") };
}

/** The step that made a named face. */
export const stepOf = (face: string): string => parseFace(face).step;

/** A name behind the prefix of an image: what step and role it is an image in. */
export const imageFace = (prefix: string, face: string): FaceKey => `${prefix}/${face}` as FaceKey;
/** How the names of one image begin: the step that repeats, and which image it is. */
export const imagePrefix = (step: string, role: string): string => `${step}/${role}`;

/** An edge by the faces that meet there, in any order. */
export const formatEdge = (faces: readonly string[]): EdgeKey => [...faces].sort().join("|") as EdgeKey;

/** The names of the two faces of an edge, in the order they are written. */
export function parseEdge(key: string): readonly [FaceKey, FaceKey] {
  const [a = "", b = ""] = unmarked(key).split("|");
  return [a as FaceKey, b as FaceKey];
}
/** An edge with its faces called otherwise; their order stays, since chamfers measure on the first. */
export const renamedEdge = (key: string, rename: (face: string) => string): EdgeKey =>
  parseEdge(key).map(rename).join("|") as EdgeKey;

const MARK = /~\d+$/;
/** The n-th of several that share a name; the first goes without a mark. */
export const marked = (key: string, n: number): string => (n > 1 ? `${key}~${n}` : key);
export const unmarked = (key: string): string => key.replace(MARK, "");
export const isMarked = (key: string): boolean => MARK.test(key);

type Picture =
  | { readonly kind: "edge"; readonly faces: readonly [FaceKey, FaceKey] }
  | { readonly kind: "section" | "silhouette"; readonly face: FaceKey };

export const sectionKey = (face: string): PictureKey => `section/${face}` as PictureKey;
export const silhouetteKey = (face: string): PictureKey => `silhouette/${face}` as PictureKey;

export function parsePicture(key: string): Picture {
  const { step, role, of } = parseFace(key);
  if ((step !== "section" && step !== "silhouette") || key.includes("|"))
    return { kind: "edge", faces: parseEdge(key) };
  return { kind: step, face: (of === undefined ? role : `${role}/${of}`) as FaceKey };
}
/** The faces a picture is of. */
export function facesOfPicture(key: string): readonly FaceKey[] {
  const p = parsePicture(key);
  return p.kind === "edge" ? p.faces : [p.face];
}

/** On which side of a curve, along its run, a region lies. */
export type Side = "l" | "r" | "b";

/**
 * A region of a sketch: the curves of its outer boundary, and where that is not enough on which side of each it lies
 * (`c1+l1#lr`: left of c1, right of l1; `b` both), and which of several such along the first curve (`#lr.2of3`).
 */
interface RegionName {
  readonly curves: readonly string[];
  readonly sides?: string;
  readonly place?: { readonly nth: number; readonly of: number };
}
export function formatRegion({ curves, sides, place }: RegionName): string {
  const base = curves.join("+");
  if (sides === undefined) return base;
  return `${base}#${sides}${place ? `.${place.nth}of${place.of}` : ""}`;
}
export function parseRegion(name: string): RegionName {
  const [base = "", rest] = name.split("#");
  const curves = base.split("+");
  const m = /^([lrb]+)(?:\.(\d+)of(\d+))?$/.exec(rest ?? "");
  if (!m) return { curves };
  const [, sides = "", nth, of] = m;
  return nth === undefined ? { curves, sides } : { curves, sides, place: { nth: Number(nth), of: Number(of) } };
}
