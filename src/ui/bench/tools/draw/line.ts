import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { meetings } from "@/core/geometry/meet";
import type { Segment } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import { idSource } from "@/core/sketch/shapes";
import { curveOf, pointAt, type Arc, type Curve, type Dimension, type Line } from "@/core/sketch/sketch";
import { angleText, lengthText, readQuantity } from "@/core/units/quantity";
import { snapHeading, snapPoint, type Snap } from "../../sketch/snap";
import { drawTied, type Tie } from "../tying";
import type { Field, Hands, Pointer, Preview, Tool } from "../tool";
import { endNear, tangentArc } from "./arc";
import { atSize, heading, own } from "./places";

/** A direction this near to a point found is meant too. */
const BOTH_PIXELS = 5;

type Aim = { snap: Snap; tie: ReturnType<typeof snapHeading>["tie"]; label: string };

/**
 * Lines in a chain, and tangent arcs between them: waiting for a start, then for end after end. Closing on the first
 * point ends it.
 */
export class LineTool implements Tool {
  preview: Preview = {};
  private from: { at: Vec2; snap: Snap | undefined; end?: string } | undefined;
  private first: string | undefined;
  private typed: (string | undefined)[] = [];
  private last: Pointer | undefined;
  constructor(
    private readonly hands: Hands,
    private arcs = false,
  ) {}

  get hint(): string {
    if (!this.from) return "Line: click where it begins.";
    return this.arcs
      ? "Tangent arc: click where it ends. The key once more goes back to lines."
      : "Line: click the next point. Escape ends the chain; hold Shift to find nothing; the key once more " +
          "turns to a tangent arc.";
  }
  /** The curve before in the chain, or one that ends where this begins. */
  private before() {
    return this.from && endNear(this.hands.sketch(), this.from.at);
  }
  private value(i: number): number | undefined {
    const text = this.typed[i];
    if (!text?.trim()) return undefined;
    const r = readQuantity(text, i ? "angle" : "length", this.hands.unit);
    return r.ok ? r.value : undefined;
  }
  get fields(): readonly Field[] {
    if (!this.from || !this.last || this.arcs) return [];
    const to = this.aim(this.last).snap.at;
    return [
      {
        label: "length",
        quantity: "length",
        typed: this.typed[0] !== undefined,
        text: this.typed[0] ?? lengthText(distance2(this.from.at, to), this.hands.unit, false),
      },
      {
        label: "angle",
        quantity: "angle",
        typed: this.typed[1] !== undefined,
        text: this.typed[1] ?? angleText(heading(this.from.at, to)).replace("°", ""),
      },
    ];
  }
  private aim(p: Pointer): Aim {
    const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift);
    const [length, angle] = [this.value(0), this.value(1)];
    if (this.from && (length !== undefined || angle !== undefined)) {
      // a typed length along a direction found, or a typed direction
      const found = angle === undefined ? this.headingTo(p.at, p) : undefined;
      return {
        snap: { at: atSize(this.from.at, found?.at ?? p.at, length, angle), label: "", ties: [] },
        tie: found?.tie,
        label: found?.label ?? "",
      };
    }
    if (this.arcs || !this.from || (snap.ties.length && snap.label !== "on curve")) {
      const found = this.from && !this.arcs ? this.headingTo(snap.at, p) : undefined;
      // a point found wins over a direction; both hold when they are pixels apart, as for the last line of an outline
      const both = found?.tie && distance2(found.at, snap.at) < BOTH_PIXELS * p.pixel ? found : undefined;
      return { snap, tie: both?.tie, label: [snap.label, both?.label].filter(Boolean).join(" · ") };
    }
    const found = this.headingTo(p.at, p);
    const crossing = found.tie && snap.label === "on curve" ? this.crossing(found.at, p) : undefined;
    if (crossing) return { snap: { ...snap, at: crossing }, tie: found.tie, label: `on curve · ${found.label}` };
    return found.tie
      ? { snap: { at: found.at, label: "", ties: [] }, tie: found.tie, label: found.label }
      : { snap, tie: undefined, label: snap.label };
  }
  /** Where the direction found meets the curve under the pointer, if that is near. */
  private crossing(along: Vec2, p: Pointer): Vec2 | undefined {
    const a = this.from!.at,
      k = 1 + (30 * p.pixel) / (distance2(a, along) || 1),
      ray: Segment = { kind: "line", a, b: [a[0] + (along[0] - a[0]) * k, a[1] + (along[1] - a[1]) * k] };
    const curve = this.hands.sketch().curves.find((c) => c.id === p.hit?.ref),
      reach = 1e5;
    const shape: Segment | undefined =
      p.hit?.ref === "x-axis"
        ? { kind: "line", a: [-reach, 0], b: [reach, 0] }
        : p.hit?.ref === "y-axis"
          ? { kind: "line", a: [0, -reach], b: [0, reach] }
          : curve && segmentOf(curve);
    const found = shape
      ? meetings(ray, shape, COINCIDENT).filter(
          (m) => m.t > COINCIDENT && distance2(m.at, p.at) < 2 * BOTH_PIXELS * p.pixel,
        )
      : [];
    return found.sort((x, y) => distance2(x.at, p.at) - distance2(y.at, p.at))[0]?.at;
  }
  private headingTo(at: Vec2, p: Pointer) {
    return snapHeading(
      this.hands.sketch(),
      this.from!.at,
      at,
      p.pixel,
      p.shift,
      this.from!.end && curveOf(this.from!.end),
    );
  }
  /** The arc from where the chain stands, smoothly, to a place. */
  private arc(to: Vec2, id: string): { curve: Arc; near: string; far: string; from: string } | undefined {
    const before = this.before(),
      round = before && tangentArc(this.from!.at, before.direction, to);
    if (!round) return undefined;
    const [start, end] = round.ccw ? [this.from!.at, to] : [to, this.from!.at];
    const [near, far] = round.ccw ? ["start", "end"] : ["end", "start"];
    return {
      curve: { id, kind: "arc", centre: own(round.centre), start: own(start), end: own(end) },
      near: `${id}.${near}`,
      far: `${id}.${far}`,
      from: before.curve,
    };
  }

  move(p: Pointer): void {
    this.last = p;
    const { snap, label } = this.aim(p);
    const line: Line | undefined = this.from && {
      id: "preview",
      kind: "line",
      start: own(this.from.at),
      end: own(snap.at),
    };
    const curve = this.arcs && this.from ? this.arc(snap.at, "preview")?.curve : line;
    this.preview = { ...(label && { mark: { at: snap.at, label } }), ...(curve && { curves: [curve] }) };
  }
  down(p: Pointer): void {
    this.last = p;
    const aim = this.aim(p);
    if (!this.from) this.from = { at: aim.snap.at, snap: aim.snap };
    else if (distance2(this.from.at, aim.snap.at) >= 2 * p.pixel) this.put(aim);
  }
  private put({ snap, tie }: Aim): void {
    const from = this.from!,
      sketch = this.hands.sketch(),
      id = idSource(sketch);
    const name = id(this.arcs ? "a" : "l");
    const arc = this.arcs ? this.arc(snap.at, name) : undefined;
    if (this.arcs && !arc)
      return this.hands.say("notice", "A tangent arc begins at the end of a line or arc, and not straight ahead.");
    const [near, far] = arc ? [arc.near, arc.far] : [`${name}.start`, `${name}.end`];
    const curve: Curve = arc?.curve ?? { id: name, kind: "line", start: own(from.at), end: own(snap.at) };
    const other = arc && sketch.curves.find((c) => c.id === arc.from);
    const ties: Tie[] = [
      ...(from.end
        ? [{ kind: "coincident" as const, of: [near, from.end] }]
        : (from.snap?.ties ?? []).map((t) => ({ kind: t.kind, of: t.of(near) }))),
      ...snap.ties.map((t) => ({ kind: t.kind, of: t.of(far) })),
      ...(tie && !arc ? [{ kind: tie.kind, of: tie.of(name) }] : []),
      ...(other
        ? [
            {
              kind: "tangent" as const,
              of: other.kind === "spline" || other.kind === "ellipse-arc" ? [name, other.id] : [other.id, name],
            },
          ]
        : []),
    ];
    const closes = this.first !== undefined && ties.some((t) => t.kind === "coincident" && t.of.includes(this.first!));
    const dimensions: Dimension[] = [
      ...(this.value(0) !== undefined
        ? [{ id: id("m"), kind: "length" as const, of: [name], value: this.typed[0]!.trim() }]
        : []),
      ...(this.value(1) !== undefined && Math.abs(Math.sin(this.value(1)!)) > SAME_WAY
        ? [
            {
              id: id("m"),
              kind: "angle" as const,
              of: ["x-axis", name],
              value: `${Math.abs(Math.atan2(Math.sin(this.value(1)!), Math.cos(this.value(1)!)))} rad`,
            },
          ]
        : []),
    ];
    // a typed 0 or 180° is level
    if (this.value(1) !== undefined && Math.abs(Math.sin(this.value(1)!)) <= SAME_WAY)
      ties.push({ kind: "horizontal", of: [name] });
    if (
      !drawTied(
        this.hands,
        { do: "draw", curves: [curve], constraints: [], ...(dimensions.length && { dimensions }) },
        ties,
        id,
      )
    )
      return;
    this.first ??= near;
    this.preview = {};
    this.typed = [];
    // where the end lies now the solver has said
    if (closes) this.cancel();
    else this.from = { at: pointAt(this.hands.sketch(), far), snap: undefined, end: far };
  }

  type(field: number, text: string): void {
    this.typed[field] = text === "" ? undefined : text;
    if (this.last) this.move(this.last);
  }
  enter(): boolean {
    if (!this.from || !this.last || !this.typed.some((t) => t !== undefined)) return this.cancel();
    for (const i of [0, 1]) {
      const text = this.typed[i],
        r = text === undefined ? undefined : readQuantity(text, i ? "angle" : "length", this.hands.unit);
      if (r && !r.ok) {
        this.hands.say("trouble", r.refusal.sentence);
        return true;
      }
    }
    this.put(this.aim(this.last));
    return true;
  }
  again(): boolean {
    if (!this.from) return false;
    this.arcs = !this.arcs;
    if (this.last) this.move(this.last);
    return true;
  }
  cancel(): boolean {
    const had = this.from !== undefined;
    this.from = this.first = undefined;
    this.arcs = false;
    this.typed = [];
    this.preview = {};
    return had;
  }
}
