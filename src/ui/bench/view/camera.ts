import { UNSEEN } from "../tolerance";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { add3, cross3, dot3, scale3, sub3, unit3, type Vec2, type Vec3 } from "@/core/geometry/vector";

export interface Look {
  readonly toViewer: Vec3;
  readonly right: Vec3;
}

/** From the front right, above. */
export const PICTORIAL: Look = { toViewer: unit3([1, -1, 1]), right: unit3([1, 1, 0]) };

/** How many times the view's height the eye stands away in perspective. */
const EYE = 2.4;

/**
 * A camera, parallel or in perspective: what it looks at, from where, and pixels per mm. Tells listeners when it
 * moves.
 */
export class Camera {
  target: Vec3 = [0, 0, 0];
  toViewer: Vec3 = PICTORIAL.toViewer;
  right: Vec3 = PICTORIAL.right;
  /** Pixels per mm; in perspective at the depth of the target. */
  scale = 3;
  perspective = false;
  width = 1;
  height = 1;
  /** Pixels at the foot that something lies over; fitting keeps clear of them. */
  foot = 0;
  /** The same at the left: a card being filled in. */
  side = 0;
  /** The same at the upper right corner: width and height of what lies there. */
  corner: Vec2 = [0, 0];
  version = 0;
  private listeners = new Set<() => void>();
  private turning = 0;

  get up(): Vec3 {
    return cross3(this.toViewer, this.right);
  }
  readonly subscribe = (f: () => void) => {
    this.listeners.add(f);
    return () => void this.listeners.delete(f);
  };
  private moved(): void {
    this.version++;
    this.listeners.forEach((f) => f());
  }
  resize(width: number, height: number): void {
    this.width = width;
    this.height = height;
    this.moved();
  }

  /** From the target to the eye, mm. */
  get eyeDistance(): number {
    return (EYE * this.height) / this.scale;
  }
  setPerspective(on: boolean): void {
    this.perspective = on;
    this.moved();
  }

  /** Space (mm) to pixels from the upper left corner. */
  toPixels(p: Vec3): Vec2 {
    const d = sub3(p, this.target);
    // what lies behind the eye is put far out, not turned over
    const k = this.perspective
      ? this.scale / Math.max(1 - dot3(d, this.toViewer) / this.eyeDistance, UNSEEN)
      : this.scale;
    return [this.width / 2 + dot3(d, this.right) * k, this.height / 2 - dot3(d, this.up) * k];
  }
  /** The point of a plane under a pixel, in plane coordinates; undefined when it is seen edge on. */
  onPlane(frame: Frame, pixel: Vec2): Vec2 | undefined {
    const n = normalOf(frame);
    const near = add3(
      this.target,
      add3(
        scale3(this.right, (pixel[0] - this.width / 2) / this.scale),
        scale3(this.up, -(pixel[1] - this.height / 2) / this.scale),
      ),
    );
    const way = this.perspective
        ? unit3(sub3(add3(this.target, scale3(this.toViewer, this.eyeDistance)), near))
        : this.toViewer,
      slope = dot3(way, n);
    if (Math.abs(slope) < 0.02) return undefined;
    const p = add3(near, scale3(way, -dot3(sub3(near, frame.origin), n) / slope));
    const d = sub3(p, frame.origin);
    return [dot3(d, frame.x), dot3(d, frame.y)];
  }

  /** Turns about the vertical and about the screen's horizontal; pixels. */
  orbit(dx: number, dy: number): void {
    const spin = (v: Vec3, axis: Vec3, t: number): Vec3 => {
      // Rodrigues' rotation
      const c = Math.cos(t),
        s = Math.sin(t),
        k = dot3(axis, v) * (1 - c),
        x = cross3(axis, v);
      return [v[0] * c + x[0] * s + axis[0] * k, v[1] * c + x[1] * s + axis[1] * k, v[2] * c + x[2] * s + axis[2] * k];
    };
    const z: Vec3 = [0, 0, 1];
    const side = this.up[2] < 0 ? -1 : 1;
    this.toViewer = spin(this.toViewer, z, -dx * 0.008 * side);
    this.right = spin(this.right, z, -dx * 0.008 * side);
    this.toViewer = unit3(spin(this.toViewer, this.right, -dy * 0.008));
    this.right = unit3(sub3(this.right, scale3(this.toViewer, dot3(this.right, this.toViewer))));
    this.moved();
  }
  pan(dx: number, dy: number): void {
    this.target = add3(this.target, add3(scale3(this.right, -dx / this.scale), scale3(this.up, dy / this.scale)));
    this.moved();
  }
  /** Zooms by a factor, keeping what is under the pixel there. */
  zoom(factor: number, pixel: Vec2 = [this.width / 2, this.height / 2]): void {
    const scale = Math.max(0.001, Math.min(20000, this.scale * factor));
    const k = 1 / this.scale - 1 / scale;
    this.target = add3(
      this.target,
      add3(scale3(this.right, (pixel[0] - this.width / 2) * k), scale3(this.up, -(pixel[1] - this.height / 2) * k)),
    );
    this.scale = scale;
    this.moved();
  }
  /** Brings a box (corners in space) into view. */
  fit(points: readonly Vec3[], margin = this.side ? 0.85 : 0.7): void {
    if (!points.length) return;
    const across = (d: Vec3) => points.map((p) => dot3(p, d));
    const mid = (d: Vec3) => (Math.min(...across(d)) + Math.max(...across(d))) / 2;
    const span = (d: Vec3) => Math.max(...across(d)) - Math.min(...across(d));
    this.target = [this.right, this.up, this.toViewer].reduce<Vec3>((s, d) => add3(s, scale3(d, mid(d))), [0, 0, 0]);
    const [w, h] = [Math.max(span(this.right), UNSEEN), Math.max(span(this.up), UNSEEN)];
    // beside what lies in the corner, or below it: whichever leaves more
    const rooms = [
      { right: this.corner[0], top: 0 },
      { right: 0, top: this.corner[1] },
    ].map((room) => {
      const wide = Math.max(this.width - this.side - room.right, 50),
        high = Math.max(this.height - this.foot - room.top, 50);
      return { ...room, scale: margin * Math.min(wide / w, high / h) };
    });
    const free = {
      right: 0,
      top: 0,
      scale: margin * Math.min(Math.max(this.width - this.side, 50) / w, Math.max(this.height - this.foot, 50) / h),
    };
    const best = this.isClear(free.scale, w, h) ? free : rooms.reduce((a, b) => (b.scale > a.scale ? b : a));
    this.scale = Math.max(0.001, Math.min(20000, best.scale));
    this.target = add3(
      add3(this.target, scale3(this.up, (best.top - this.foot) / 2 / this.scale)),
      scale3(this.right, (best.right - this.side) / 2 / this.scale),
    );
    this.moved();
  }
  /** Whether a box of so many mm, in the middle of the free view at a scale, keeps clear of what lies in the corner. */
  private isClear(scale: number, w: number, h: number): boolean {
    const right = (this.side + this.width + w * scale) / 2,
      top = (this.height - this.foot - h * scale) / 2;
    return right <= this.width - this.corner[0] || top >= this.corner[1];
  }
  /** Turns to a look, in a short movement unless motion is unwanted. */
  turnTo(look: Look, then?: () => void): void {
    cancelAnimationFrame(this.turning);
    const from = { toViewer: this.toViewer, right: this.right };
    const start = performance.now();
    const still = matchMedia("(prefers-reduced-motion: reduce)").matches;
    const step = (now: number) => {
      const t = still ? 1 : Math.min(1, (now - start) / 220);
      const e = t * t * (3 - 2 * t);
      const mix = (a: Vec3, b: Vec3): Vec3 => [
        a[0] + (b[0] - a[0]) * e,
        a[1] + (b[1] - a[1]) * e,
        a[2] + (b[2] - a[2]) * e,
      ];
      const v = mix(from.toViewer, look.toViewer),
        r = mix(from.right, look.right);
      // looking the other way round passes through nothing; jump there
      if (t >= 1 || Math.hypot(...v) < 0.2 || Math.hypot(...r) < 0.2) {
        this.toViewer = look.toViewer;
        this.right = look.right;
        this.moved();
        then?.();
        return;
      }
      this.toViewer = unit3(v);
      this.right = unit3(sub3(r, scale3(this.toViewer, dot3(r, this.toViewer))));
      this.moved();
      this.turning = requestAnimationFrame(step);
    };
    this.turning = requestAnimationFrame(step);
  }
}

/** Straight at a sketch's plane. */
export const straightAt = (frame: Frame): Look => ({ toViewer: normalOf(frame), right: frame.x });
