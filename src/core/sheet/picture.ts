import { element, escaped, figure } from "@/core/formats/svg";
import { distance2, dot3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Mesh } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { COMPUTED } from "./tolerance";
import { strokeLength, thinned, type Stroke } from "./views/outline";
import { farPoints } from "./views/obstacles";
import { drawnView, GAZES, upOf, type ViewPlan } from "./views/views";

/** How a part is pictured on a Sheet and in lists. */
export const PICTORIAL: ViewPlan = {
  key: "pictorial",
  name: "pictorial",
  gaze: GAZES.pictorial,
  hidden: false,
  tangent: true,
};

/** What differs from the reference, hatched: each its own way and its own colour. */
interface Differing {
  readonly missing?: Mesh | undefined;
  readonly extra?: Mesh | undefined;
}

/** Units of the picture, and a margin for its widest line. */
const [WIDTH, HEIGHT, MARGIN] = [128, 96, 3];
const MOST_BYTES = 20_000;
/** So much of them is for hatching, at most. */
const HATCH_BYTES = 7_000;
/** A part of more faces is not pictured: seeing what hides what would take longer than checking it. */
const MOST_FACES = 800;

const STYLE =
  ".o{stroke:#22292f;stroke-width:1.3}.t{stroke:#8fa1ae;stroke-width:.7}.m{stroke:#b4522b}.e{stroke:#3e5c70}" +
  "@media(prefers-color-scheme:dark){.o{stroke:#ece8dd}.t{stroke:#6c7a83}.m{stroke:#e58a5f}.e{stroke:#8fb1c6}}";

/**
 * A part as a line drawing for lists: pictorial, hidden lines removed, of one size, at most 20 kB of SVG that follows
 * the reader's theme. What is small falls away where there is too much of it.
 * @returns undefined where the part has too many faces, or none
 */
export function partPicture(kernel: Kernel, solid: Solid, called: string): string | undefined {
  return comparedPictures(kernel, solid, called, {})?.plain;
}

/** A part as it is, and with what differs from the reference hatched over it. */
export interface LinePictures {
  readonly plain: string;
  readonly hatched: string;
}

/** The same, and once more with what is missing and what is extra. Bodies lie where they were compared. */
export function comparedPictures(
  kernel: Kernel,
  solid: Solid,
  called: string,
  differs: Differing,
): LinePictures | undefined {
  if (!solid.names.length || solid.names.length > MOST_FACES) return undefined;
  const { strokes } = drawnView(kernel, solid, PICTORIAL);
  const plain = drawn(strokes, called, {});
  const hatched = differs.missing || differs.extra ? drawn(strokes, called, differs) : plain;
  return plain && hatched ? { plain, hatched } : undefined;
}

function drawn(strokes: readonly Stroke[], called: string, differs: Differing): string | undefined {
  const missing = flatFacets(differs.missing),
    extra = flatFacets(differs.extra);
  const fit = fitting([...strokes.flatMap((s) => [...farPoints(s)]), ...missing.flat(), ...extra.flat()]);
  if (!fit) return undefined;
  const hatched = [hatching("m", missing, fit), hatching("e", extra, fit)].join("");
  const head = element("title", {}, escaped(called)) + element("style", {}, STYLE) + hatched;
  const room = MOST_BYTES - head.length - 400;
  const parts = kept(strokes, fit, room);
  const path = (of: string, list: readonly string[]) =>
    list.length ? element("path", { class: of, d: list.join("") }) : "";
  return element(
    "svg",
    { xmlns: "http://www.w3.org/2000/svg", viewBox: `0 0 ${WIDTH} ${HEIGHT}`, fill: "none", "stroke-linecap": "round" },
    head,
    path(
      "t",
      parts.filter((p) => p.isThin).map((p) => p.d),
    ),
    path(
      "o",
      parts.filter((p) => !p.isThin).map((p) => p.d),
    ),
  );
}

/** From the view's coordinates, y upwards, to the picture's. */
interface Fit {
  readonly scale: number;
  readonly at: (p: Vec2) => Vec2;
}

function fitting(points: readonly Vec2[]): Fit | undefined {
  if (!points.length) return undefined;
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [x, y] of points) {
    [left, right] = [Math.min(left, x), Math.max(right, x)];
    [low, high] = [Math.min(low, y), Math.max(high, y)];
  }
  const [w, h] = [right - left, high - low];
  if (!(w > 0 || h > 0)) return undefined;
  const scale = Math.min((WIDTH - 2 * MARGIN) / Math.max(w, COMPUTED), (HEIGHT - 2 * MARGIN) / Math.max(h, COMPUTED));
  const [x, y] = [(left + right) / 2, (low + high) / 2];
  return { scale, at: (p) => [WIDTH / 2 + (p[0] - x) * scale, HEIGHT / 2 - (p[1] - y) * scale] };
}

/** A tenth of a unit is a twelfth of a line's width. */
const short = (n: number): string => figure(Math.round(n * 10) / 10);
const pair = (p: Vec2): string => `${short(p[0])} ${short(p[1])}`;

/** Strokes as pieces of paths, the longest first as long as there is room. */
function kept(strokes: readonly Stroke[], fit: Fit, room: number): { readonly d: string; readonly isThin: boolean }[] {
  const all = strokes
    .map((s) => ({ d: pathOf(s, fit), isThin: s.tangent === true, length: strokeLength(s) }))
    .sort((a, b) => Number(a.isThin) - Number(b.isThin) || b.length - a.length);
  let left = room;
  return all.filter((s) => {
    left -= s.d.length;
    return left >= 0;
  });
}

function pathOf(s: Stroke, { at, scale }: Fit): string {
  if (s.kind === "line") return `M${pair(at(s.a))}L${pair(at(s.b))}`;
  if (s.kind === "path") return `M${coarse(thinned(s.points).map(at)).map(pair).join("L")}`;
  const on = (turn: number) =>
    pair(at([s.centre[0] + s.radius * Math.cos(turn), s.centre[1] + s.radius * Math.sin(turn)]));
  const r = short(s.radius * scale);
  const [from, to] = [s.from, s.to],
    middle = (from + to) / 2;
  // counter-clockwise with y upwards is sweep 0 with y downwards; two halves, so that a whole turn is drawn
  return `M${on(from)}A${r} ${r} 0 0 0 ${on(middle)}A${r} ${r} 0 0 0 ${on(to)}`;
}

/** Points of a path that are a line's width apart, its ends kept. */
function coarse(points: readonly Vec2[]): Vec2[] {
  const rest: Vec2[] = [];
  points.forEach((p, i) => {
    const last = rest[rest.length - 1];
    if (!last || i === points.length - 1 || distance2(last, p) > 0.8) rest.push(p);
  });
  return rest;
}

const flat = (p: Vec3): Vec2 => [dot3(p, PICTORIAL.gaze.right), dot3(p, upOf(PICTORIAL.gaze))];

/** Facets of a body as they are seen, the largest first. */
function flatFacets(mesh: Mesh | undefined): (readonly [Vec2, Vec2, Vec2])[] {
  if (!mesh) return [];
  const { positions, triangles } = mesh;
  const corner = (i: number): Vec2 => {
    const at = triangles[i]! * 3;
    return flat([positions[at]!, positions[at + 1]!, positions[at + 2]!]);
  };
  const list: { readonly points: readonly [Vec2, Vec2, Vec2]; readonly area: number }[] = [];
  for (let i = 0; i + 2 < triangles.length; i += 3) {
    const [a, b, c] = [corner(i), corner(i + 1), corner(i + 2)];
    const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    // what looks away covers the same
    if (area > 0) list.push({ points: [a, b, c], area });
  }
  return list.sort((a, b) => b.area - a.area).map((f) => f.points);
}

/** Lines across facets, clipped by them: one way for what is missing, the other for what is extra. */
function hatching(kind: "m" | "e", facets: readonly (readonly [Vec2, Vec2, Vec2])[], { at }: Fit): string {
  if (!facets.length) return "";
  let left = HATCH_BYTES / 2;
  const pieces: string[] = [];
  for (const f of facets) {
    const piece = `M${f.map(at).map(pair).join("L")}Z`;
    left -= piece.length;
    if (left < 0) break;
    pieces.push(piece);
  }
  const step = 3.4;
  const lines: string[] = [];
  for (let x = -HEIGHT; x < WIDTH + HEIGHT; x += step) {
    const [from, to] = kind === "m" ? [x, x + HEIGHT] : [x + HEIGHT, x];
    lines.push(`M${short(from)} ${HEIGHT}L${short(to)} 0`);
  }
  return (
    element("clipPath", { id: kind }, element("path", { d: pieces.join("") })) +
    element("path", { class: kind, "clip-path": `url(#${kind})`, d: lines.join("") })
  );
}
