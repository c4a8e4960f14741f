import { add3, cross3, dot3, length3, scale3, sub3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { normalAt } from "@/core/kernel/carrier";
import type { Gaze, ProjectedEdge, Scene, SightCurve } from "@/core/kernel/scene";
import { NearestOn } from "./net";
import { alongCurve, curveLength } from "./sight-curve";
import { facetOutlines, outlinesOf, straightOutlines } from "./silhouette";
import { BESIDE, EDGE_ON, SMOOTH_EDGE } from "./tolerance";

/** What a view shows beside its visible edges and outlines. */
interface Shown {
  readonly hidden: boolean;
  readonly tangent: boolean;
}

/** Along a curve it is asked in steps of so much of the body's size, and arcs in steps of so many radians. */
const STEP = 1 / 160;
const ARC_STEP = 0.12;
const HALVINGS = 26;
/** Arcs are handed on in steps of this, radians. */
const DRAWN_STEP = 0.1;

/**
 * What of a body is seen from where: its edges and outlines are exact, and whether something stands before them is
 * asked by rays at fine facets. The library's own removal of hidden lines was wrong by 10 mm on a shaft with a keyway,
 * and took 2 s a view.
 */
export class Sight {
  private readonly net: NearestOn;
  private readonly smooth: readonly boolean[];

  constructor(private readonly scene: Scene) {
    this.net = new NearestOn(scene.net);
    this.smooth = scene.edges.map((e) => this.isSmooth(e));
  }

  /** Edges and outlines as a view shows them; pieces may repeat and overlap. */
  lines(gaze: Gaze, shown: Shown): ProjectedEdge[] {
    const { edges, faces } = this.scene,
      { toViewer } = gaze;
    const list: ProjectedEdge[] = [];
    edges.forEach((e, i) => {
      const isSharp = !this.smooth[i] || this.turnsAway(e, toViewer);
      if (!isSharp && !shown.tangent) return;
      this.draw(list, e.curve, e.faces, gaze, shown, !isSharp, (p) => this.awayFrom(e.faces, p));
    });
    faces.forEach((carrier, face) => {
      const away = (p: Vec3) => normalAt(carrier, p) ?? toViewer;
      for (const c of straightOutlines(this.scene, face, toViewer))
        this.draw(list, c, [face], gaze, shown, false, away);
      for (const c of outlinesOf(carrier, toViewer))
        this.draw(list, c, [face], gaze, shown, false, away, (p) => this.isOnFace(face, p));
    });
    for (const c of facetOutlines(this.scene, toViewer)) {
      const across = cross3(toViewer, sub3(alongCurve(c, 1), alongCurve(c, 0)));
      const side = length3(across) > 0 ? unit3(across) : toViewer;
      // which of its sides is outside the rays tell
      this.draw(list, c, [], gaze, shown, false, () => side, undefined, true);
    }
    return list;
  }

  private isSmooth({ curve, faces }: Scene["edges"][number]): boolean {
    return [0.31, 0.69].every((t) => {
      const p = alongCurve(curve, t),
        [a, b] = faces.map((f) => this.normal(f, p));
      return dot3(a!, b!) > 1 - SMOOTH_EDGE;
    });
  }

  /** Normal of a face at one of its places. */
  private normal(face: number, p: Vec3): Vec3 {
    const carrier = this.scene.faces[face]!;
    return normalAt(carrier, p) ?? this.facetNormal(face, p);
  }
  private facetNormal(face: number, p: Vec3): Vec3 {
    const { faceOf } = this.scene;
    return this.net.normal(this.net.findAmong(p, (t) => faceOf[t] === face) ?? 0);
  }

  private awayFrom(faces: readonly [number, number], p: Vec3): Vec3 {
    const [a, b] = faces.map((f) => this.normal(f, p)) as [Vec3, Vec3],
      sum = add3(a, b);
    return length3(sum) > EDGE_ON ? unit3(sum) : a;
  }

  /** A smooth edge that lies on an outline: one face looks to the viewer there, the other does not. */
  private turnsAway({ curve, faces }: Scene["edges"][number], toViewer: Vec3): boolean {
    const p = alongCurve(curve, 0.5);
    if (Math.abs(dot3(this.normal(faces[0], p), toViewer)) > EDGE_ON) return false;
    const looks = faces.map((f) => {
      const carrier = this.scene.faces[f]!;
      if (carrier.kind === "plane") return 0;
      return Math.sign(dot3(this.facetNormal(f, p), toViewer));
    });
    return looks[0] !== looks[1];
  }

  private isOnFace(face: number, p: Vec3): boolean {
    const found = this.net.find(p, 4 * this.scene.fineness);
    return found !== undefined && this.scene.faceOf[found.triangle] === face;
  }

  /** @param on whether a place of the curve is there at all @param bothSides either side being free is enough */
  private draw(
    list: ProjectedEdge[],
    curve: SightCurve,
    faces: readonly number[],
    gaze: Gaze,
    shown: Shown,
    tangent: boolean,
    away: (p: Vec3) => Vec3,
    on: (p: Vec3) => boolean = () => true,
    bothSides = false,
  ): void {
    const { toViewer } = gaze,
      beside = this.scene.size * BESIDE;
    const long = curveLength(curve);
    if (long < beside) return;
    const isFree = (p: Vec3, side: Vec3, by: number) => !this.net.meets(add3(p, scale3(side, by)), toViewer);
    /** 0 it is not there, 1 hidden, 2 seen. */
    const state = (t: number): 0 | 1 | 2 => {
      const p = alongCurve(curve, t);
      if (!on(p)) return 0;
      const side = away(p);
      return isFree(p, side, beside) || (bothSides && isFree(p, side, -beside)) ? 2 : 1;
    };
    const turn = curve.kind === "circle" ? Math.abs(curve.to - curve.from) / ARC_STEP : 0;
    const n = Math.ceil(Math.max(4, turn, long / (this.scene.size * STEP)));
    // the very ends touch other faces, and where an outline ends its surface goes along the ray
    const radius = curve.kind === "circle" ? length3(curve.x) : Infinity,
      ends = (2 * Math.sqrt((2 * beside) / radius) * radius) / long;
    const inset = Math.min(0.2, Math.max((4 * beside) / long, curve.kind === "circle" ? ends : 0));
    const at = (i: number) => inset + ((1 - 2 * inset) * i) / n;
    let from = 0,
      now = state(at(0));
    const give = (to: number) => {
      if (now === 0 || (now === 1 && (!shown.hidden || tangent))) return;
      list.push({ hidden: now === 1, ...(tangent && { tangent }), faces, points: projected(curve, from, to, gaze) });
    };
    for (let i = 1; i <= n; i++) {
      const next = state(at(i));
      if (next === now) continue;
      let [a, b] = [at(i - 1), at(i)];
      for (let k = 0; k < HALVINGS; k++) {
        const middle = (a + b) / 2;
        if (state(middle) === now) a = middle;
        else b = middle;
      }
      give(a);
      [from, now] = [b, next];
    }
    give(1);
  }
}

/** In how many straight pieces a whole curve is drawn. */
function piecesOf(c: SightCurve, toViewer: Vec3): number {
  if (c.kind === "line") return 1;
  if (c.kind === "free") return c.points.length - 1;
  // a circle seen edge on is a line that ends where it turns back
  const isEdgeOn = Math.abs(dot3(unit3(cross3(c.x, c.y)), toViewer)) < EDGE_ON;
  if (isEdgeOn) return Math.max(6, (10 * Math.abs(c.to - c.from)) / DRAWN_STEP);
  // an ellipse becomes no arc again: its chords are what is drawn
  const isEllipse = Math.abs(length3(c.x) - length3(c.y)) > EDGE_ON * length3(c.x);
  return Math.max(6, ((isEllipse ? 3 : 1) * Math.abs(c.to - c.from)) / DRAWN_STEP);
}

/** A piece of a curve as a view shows it. */
function projected(c: SightCurve, from: number, to: number, { toViewer, right }: Gaze): Vec2[] {
  const up = cross3(toViewer, right),
    // a short piece of an arc still tells its circle
    n = Math.max(c.kind === "line" ? 1 : 4, Math.ceil(piecesOf(c, toViewer) * (to - from)));
  return Array.from({ length: n + 1 }, (_, i): Vec2 => {
    const p = alongCurve(c, from + ((to - from) * i) / n);
    return [dot3(p, right), dot3(p, up)];
  });
}
