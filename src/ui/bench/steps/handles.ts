import { COINCIDENT } from "@/core/geometry/tolerance";
import { UNSEEN } from "../tolerance";
import { frameOf } from "@/core/part/steps/sketch/schema";
import { extentOf } from "@/core/sketch/profile";
import { faceFrame, normalOf, toSpace, type Frame } from "@/core/geometry/frame";
import { footOn, turnedPoint } from "@/core/geometry/line";
import { add3, cross3, distance3, dot3, length3, scale3, sub3, unit3, type Vec3, vec3 } from "@/core/geometry/vector";
import { normalAt } from "@/core/kernel/carrier";
import type { Model } from "@/core/kernel/model";
import { parameterNames } from "@/core/part/parameters";
import type { PartDocument } from "@/core/part/document";
import type { EdgeRef } from "@/core/naming/reference";
import type { ExtrudeStep } from "@/core/part/steps/extrude/schema";
import type { RevolveStep } from "@/core/part/steps/revolve/schema";
import type { Step } from "@/core/part/steps/kinds";
import type { Size } from "@/core/part/steps/fields";
import { readQuantity, type QuantityKind } from "@/core/units/quantity";
import { edgeNow, faceNow } from "../view/refs";

/** An arrow that drags one number of a step: it stands at `foot`, its tip `value × per` mm along. */
export interface Handle {
  readonly name: string;
  readonly foot: Vec3;
  /** Unit vector. */
  readonly along: Vec3;
  /** What the number is now: mm, or radians. */
  readonly value: number;
  readonly quantity: QuantityKind;
  /** How far the tip moves, mm, for one of the number. */
  readonly per: number;
  /** The step with another number there. */
  readonly put: (draft: Step, text: string) => Step;
}

type Find = (size: Size, quantity?: QuantityKind) => number | undefined;

/** The arrows of the step whose card is open. @param under the part before it */
export function handlesOf(document: PartDocument, draft: Step, under: Model | undefined): Handle[] {
  const read: Find = (size, quantity = "length") => {
    const r = readQuantity(size, quantity, document.units, parameterNames(document));
    return r.ok ? r.value : undefined;
  };
  switch (draft.kind) {
    case "extrude":
      return extrudeHandles(document, draft, under, read);
    case "revolve":
      return revolveHandles(document, draft, read);
    case "fillet":
      return draft.groups.flatMap((g, i) =>
        edgeHandles(`Radius${i ? ` of group ${i + 1}` : ""}`, g.edges, under, read(g.radius), (d, radius) =>
          d.kind === "fillet" ? { ...d, groups: d.groups.map((o, k) => (k === i ? { ...o, radius } : o)) } : d,
        ),
      );
    case "chamfer":
      return draft.groups.flatMap((g, i) =>
        edgeHandles(
          `Distance${i ? ` of group ${i + 1}` : ""}`,
          g.edges,
          under,
          read(g.size.kind === "two" ? g.size.first : g.size.distance),
          (step, v) =>
            step.kind === "chamfer"
              ? {
                  ...step,
                  groups: step.groups.map((o, k) =>
                    k !== i
                      ? o
                      : { ...o, size: o.size.kind === "two" ? { ...o.size, first: v } : { ...o.size, distance: v } },
                  ),
                }
              : step,
        ),
      );
    case "shell": {
      const face = draft.open[0] && under && faceNow(under, draft.open[0]),
        value = read(draft.thickness);
      if (face === undefined || !under || value === undefined) return [];
      const rim = under.edges.find((e) => e.faces.includes(face)),
        n = normalAt(under.faces[face]!.carrier, under.faces[face]!.centre);
      if (!rim || !n) return [];
      const foot = midway(rim.points),
        inward = across(rim.points, n, under.faces[face]!.centre);
      return [
        {
          name: "Wall thickness",
          foot,
          along: scale3(inward, draft.outward ? -1 : 1),
          value,
          quantity: "length",
          per: 1,
          put: (d, thickness) => (d.kind === "shell" ? { ...d, thickness } : d),
        },
      ];
    }
    case "hole": {
      const seat = draft.on && "face" in draft.on && under ? faceNow(under, draft.on) : undefined,
        point = draft.points.find((p) => "at" in p);
      const carrier = seat === undefined ? undefined : under!.faces[seat]!.carrier,
        value = draft.extent.kind === "depth" ? read(draft.extent.depth) : undefined;
      if (carrier?.kind !== "plane" || !point || !("at" in point) || value === undefined) return [];
      return [
        {
          name: "Depth",
          foot: toSpace(faceFrame(carrier.normal, carrier.offset), point.at),
          along: scale3(carrier.normal, draft.reverse ? 1 : -1),
          value,
          quantity: "length",
          per: 1,
          put: (d, depth) => (d.kind === "hole" ? { ...d, extent: { kind: "depth", depth } } : d),
        },
      ];
    }
    default:
      return [];
  }
}

/** The middle of a run of points, on it. */
const midway = (points: readonly Vec3[]): Vec3 =>
  points.length === 2 ? scale3(add3(points[0]!, points[1]!), 0.5) : points[points.length >> 1]!;

/** Square to the middle of a run of points in a face, towards the face's middle. */
function across(points: readonly Vec3[], normal: Vec3, middle: Vec3): Vec3 {
  const k = points.length >> 1,
    along = sub3(points[Math.min(k + 1, points.length - 1)]!, points[k - 1]!),
    side = cross3(normal, along);
  return scale3(unit3(side), dot3(side, sub3(middle, midway(points))) < 0 ? -1 : 1);
}

function edgeHandles(
  name: string,
  edges: readonly { readonly on: EdgeRef }[],
  under: Model | undefined,
  value: number | undefined,
  put: Handle["put"],
): Handle[] {
  const first = edges[0] && under && edgeNow(under, edges[0].on);
  if (first === undefined || !under || value === undefined) return [];
  const e = under.edges[first]!,
    foot = midway(e.points);
  const out = e.faces.map((f) => normalAt(under.faces[f]!.carrier, foot) ?? vec3(0, 0, 0)).reduce(add3);
  return length3(out) < COINCIDENT ? [] : [{ name, foot, along: unit3(out), value, quantity: "length", per: 1, put }];
}

/** Middle of a sketch's drawing, and where it lies. */
function sketchMiddle(document: PartDocument, id: string | undefined): { frame: Frame; middle: Vec3 } | undefined {
  const step = document.steps.find((s) => s.id === id),
    box = step?.kind === "sketch" ? extentOf(step.sketch) : undefined;
  if (step?.kind !== "sketch" || !box) return undefined;
  const frame = frameOf(step.sketch.plane);
  return { frame, middle: toSpace(frame, [(box[0][0] + box[1][0]) / 2, (box[0][1] + box[1][1]) / 2]) };
}

function extrudeHandles(document: PartDocument, draft: ExtrudeStep, under: Model | undefined, read: Find): Handle[] {
  const { extent } = draft,
    face = draft.face && under ? faceNow(under, draft.face) : undefined,
    carrier = face === undefined ? undefined : under!.faces[face]!.carrier;
  const base = carrier?.kind === "plane" ? undefined : sketchMiddle(document, draft.sketch);
  const from =
    carrier?.kind === "plane"
      ? { n: carrier.normal, middle: under!.faces[face!]!.centre }
      : base && { n: normalOf(base.frame), middle: base.middle };
  if (!from || !("depth" in extent)) return [];
  const along = scale3(from.n, draft.reverse ? -1 : 1),
    depth = read(extent.depth),
    per = extent.kind === "both" && !extent.each ? 0.5 : 1;
  const put =
    (key: "depth" | "back"): Handle["put"] =>
    (d, text) =>
      d.kind === "extrude" && key in d.extent ? { ...d, extent: { ...d.extent, [key]: text } as never } : d;
  const list: Handle[] =
    depth === undefined
      ? []
      : [{ name: "Depth", foot: from.middle, along, value: depth, quantity: "length", per, put: put("depth") }];
  const back = extent.kind === "two" ? read(extent.back) : undefined;
  return back === undefined
    ? list
    : [
        ...list,
        {
          name: "The other way",
          foot: from.middle,
          along: scale3(along, -1),
          value: back,
          quantity: "length",
          per: 1,
          put: put("back"),
        },
      ];
}

function revolveHandles(document: PartDocument, draft: RevolveStep, read: Find): Handle[] {
  const { turn } = draft,
    base = sketchMiddle(document, draft.sketch),
    step = document.steps.find((s) => s.id === draft.sketch);
  if (turn.kind === "whole" || !base || step?.kind !== "sketch") return [];
  const angle = read(turn.angle, "angle"),
    line = step.sketch.curves.find(
      (c) =>
        c.kind === "line" &&
        (draft.about && "curve" in draft.about ? c.id === draft.about.curve : c.construction === "centre-line"),
    );
  const ends =
    line?.kind === "line"
      ? [line.start, line.end]
      : draft.about && "curve" in draft.about
        ? draft.about.curve === "x-axis"
          ? [
              [0, 0],
              [1, 0],
            ]
          : [
              [0, 0],
              [0, 1],
            ]
        : undefined;
  if (angle === undefined || !ends) return [];
  const [a, b] = ends.map((p) => toSpace(base.frame, p as [number, number])) as [Vec3, Vec3],
    axis = { at: a, along: unit3(sub3(b, a)) };
  const radius = distance3(base.middle, footOn(base.middle, axis)),
    sign = draft.reverse ? -1 : 1,
    share = turn.kind === "both" ? 0.5 : 1;
  if (radius < UNSEEN) return [];
  // the tip runs round with the angle: the arrow stands there, along the circle
  const tip = turnedPoint(base.middle, axis, sign * angle * share),
    along = scale3(unit3(cross3(axis.along, sub3(tip, footOn(tip, axis)))), sign);
  const per = radius * share;
  return [
    {
      name: "Angle",
      foot: sub3(tip, scale3(along, angle * per)),
      along,
      value: angle,
      quantity: "angle",
      per,
      put: (d, text) => (d.kind === "revolve" && "angle" in d.turn ? { ...d, turn: { ...d.turn, angle: text } } : d),
    },
  ];
}
