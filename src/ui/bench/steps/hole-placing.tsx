"use client";

import { faceFrame, toPlane } from "@/core/geometry/frame";
import type { Vec3 } from "@/core/geometry/vector";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import { edgeRef, faceRef } from "@/core/part/reference/make";
import { carriesHoles, type HoleStep } from "@/core/part/steps/hole/schema";
import type { PartDocument } from "@/core/part/document";
import { usePicking, type CardProps } from "./card";
import { asPlane, freeId, stepCalled } from "./options";

/** Points placed by hand stand on whole steps of this, mm. */
const GRID = 0.5;

function placing(isActive: boolean, hasSketch: boolean): string {
  if (hasSketch) return "Place by clicks instead";
  return isActive ? "Click a flat face, or a round edge for its middle" : "Place holes";
}

/** Adds the middle of a round edge; where the hole had no face yet, the flat one beside it. */
function atMiddle(model: Model, edge: number, draft: HoleStep): HoleStep {
  const on = edgeRef(model, edge),
    flat = model.edges[edge]!.faces.find((f) => model.faces[f]!.carrier.kind === "plane");
  if (!on) return draft;
  const points = [...draft.points, { id: freeId("p", draft.points), on }];
  return { ...draft, ...(!draft.on && flat !== undefined && { on: faceRef(model, flat) }), points };
}

/** Where holes stand: placed by clicks, or at the points of a sketch; one or the other, and changing over is said. */
export function HolePlaces({ store, draft, change, before }: CardProps<HoleStep> & { before: PartDocument["steps"] }) {
  const steps = store((s) => s.history.present.steps);
  const sketches = before.filter((s) => s.kind === "sketch" && s.sketch.curves.some((c) => c.kind === "point"));
  const say = (text: string) => store.getState().say({ kind: "notice", text, about: [] });
  const takeSketch = (sketch: string) => {
    if (sketch && draft.points.length)
      say(`What was placed by clicks (${draft.points.length}) is left out now. Undo brings it back.`);
    picking.end();
    change((d) => {
      const { sketch: _, on: __, ...rest } = d;
      return sketch ? { ...rest, points: [], sketch } : rest;
    });
    if (!sketch) picking.begin();
  };
  const place = (model: Model, thing: Thing, at?: Vec3) => {
    if (thing.kind === "edge" && model.edges[thing.index]!.shape.kind === "circle")
      return change((d) => atMiddle(model, thing.index, d));
    if (draft.sketch)
      return say("The holes stand at the points of a sketch. Choose “no sketch” to place them by clicks.");
    const face = asPlane(model, thing),
      carrier = thing.kind === "face" ? model.faces[thing.index]!.carrier : undefined;
    if (!face || carrier?.kind !== "plane" || !at) return say("A hole starts on a flat face: click where it shall be.");
    const [x, y] = toPlane(faceFrame(carrier.normal, carrier.offset), at).map((v) => Math.round(v / GRID) * GRID) as [
      number,
      number,
    ];
    change((d) => {
      // all points of a step lie on one face
      const keep = d.on && "face" in d.on && d.on.face === face.face ? d.points : d.points.filter((p) => !("at" in p));
      return { ...d, on: face, points: [...keep, { id: freeId("p", keep), at: [x, y] }] };
    });
  };
  const picking = usePicking(store, {
    id: "places",
    name: "Places",
    take: ["edge", "face"],
    give: place,
    first: !draft.sketch,
  });
  return (
    <>
      <button
        type="button"
        aria-pressed={picking.isActive}
        className={`btn btn-xs w-full ${picking.isActive ? "btn-primary" : ""}`}
        onClick={draft.sketch ? () => takeSketch("") : picking.toggle}
      >
        {placing(picking.isActive, draft.sketch !== undefined)}
      </button>
      {sketches.length > 0 && (
        <label className="flex items-center justify-between gap-2">
          <span className="quiet text-xs">Points of</span>
          <select
            className="select select-xs w-44"
            value={draft.sketch ?? ""}
            onChange={(e) => takeSketch(e.target.value)}
          >
            <option value="">no sketch</option>
            {sketches.map((s) => (
              <option key={s.id} value={s.id} disabled={!carriesHoles(s)}>
                {stepCalled(steps, s)}
                {carriesHoles(s) ? "" : " (construction points only)"}
              </option>
            ))}
          </select>
        </label>
      )}
    </>
  );
}
