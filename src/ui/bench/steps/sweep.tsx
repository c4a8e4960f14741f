"use client";

import type { ExtrudeStep } from "@/core/part/steps/extrude/schema";
import type { Operation } from "@/core/part/steps/fields";
import type { Thin, WallFinish } from "@/core/part/steps/fields";
import { findRegions } from "@/core/sketch/regions";
import { openChains } from "@/core/sketch/wall";
import { diagnosisOf, sketchOf, type BenchStore } from "../store";
import { Choice, calledIn, SizeInput, Tick, usePicking, type CardProps } from "./card";
import { asPlane, stepCalled } from "./options";
import { choiceOf, unusedRegions, type Swept } from "./regions";

const OPERATIONS = [
  ["add", "Add material"],
  ["cut", "Cut material"],
  ["keep", "Keep overlap"],
  ["separate", "Separate body"],
] as const;

/** What extrude and revolve share: what is done with the volume, on which bodies, and from which sketch. */
export function SweepHead<S extends Swept>({
  store,
  draft,
  change,
  onOperation,
}: CardProps<S> & { onOperation?: (o: Operation) => void }) {
  const document = store((s) => s.history.present);
  const bodies = store((s) => s.built?.bodies) ?? [];
  const mode = store((s) => s.mode),
    at = mode.kind === "step" ? mode.at : document.steps.length;
  const sketches = document.steps.filter((s, i) => s.kind === "sketch" && i < at);
  const others = bodies.filter((b) => b.id !== draft.id),
    acts = draft.bodies;
  return (
    <>
      <Choice
        small
        label="What it does"
        value={draft.operation}
        of={OPERATIONS}
        onChange={(operation) => (onOperation ? onOperation(operation) : change((d) => ({ ...d, operation })))}
      />
      {draft.kind === "extrude" && (
        <FaceField store={store} draft={draft} change={change as never} hasSketch={sketches.length > 0} />
      )}
      {(draft.kind !== "extrude" || !draft.face) && sketches.length > 0 && (
        <label className="flex items-center justify-between gap-2">
          <span className="quiet text-xs">Sketch</span>
          <select
            className="select select-xs w-48"
            value={draft.sketch}
            onChange={(e) =>
              change((d) => {
                const { regions: _, ...rest } = d;
                const next = unusedRegions(e.target.value, document.steps.slice(0, at), document.units);
                return { ...rest, sketch: e.target.value, ...next } as S;
              })
            }
          >
            {sketches.map((s) => (
              <option key={s.id} value={s.id}>
                {stepCalled(document.steps, s)}
              </option>
            ))}
          </select>
        </label>
      )}
      {others.length > 1 && draft.operation !== "separate" && (
        <div className="flex flex-wrap gap-x-3" role="group" aria-label="Bodies it acts on">
          {others.map((body) => (
            <Tick
              key={body.id}
              label={body.id}
              on={acts ? acts.includes(body.id) : draft.operation !== "add" || body === others[0]}
              onChange={(on) =>
                change((d) => {
                  const now = acts ?? (draft.operation === "add" ? [others[0]!.id] : others.map((o) => o.id)),
                    next = on ? [...now, body.id] : now.filter((x) => x !== body.id);
                  return next.length ? { ...d, bodies: next } : d;
                })
              }
            />
          ))}
        </div>
      )}
    </>
  );
}

/** How many regions of the sketch are taken, and all of them at once. */
export function RegionsLine<S extends Swept>({ store, draft, change }: CardProps<S>) {
  const document = store((s) => s.history.present),
    choice = draft.sketch === undefined ? undefined : choiceOf(draft, document);
  if (!choice?.regions.length) return null;
  const { regions, taken } = choice;
  const all = () => change((d) => ({ ...d, regions: regions.map((r) => r.identity) }));
  return (
    <p className="quiet flex items-center justify-between gap-2 text-xs">
      <span>
        {taken.size} of {regions.length} region{regions.length > 1 ? "s" : ""} taken
        {regions.length > 1 && "; click them, or go there with Tab and the arrows"}
      </span>
      {taken.size < regions.length && (
        <button type="button" className="btn btn-xs" onClick={all}>
          All
        </button>
      )}
    </p>
  );
}

/** A flat face of the part that rises or sinks as it is, without a sketch. */
function FaceField({ store, draft, change, hasSketch }: CardProps<ExtrudeStep> & { hasSketch: boolean }) {
  const document = store((s) => s.history.present);
  const give = (m: Parameters<typeof asPlane>[0], t: Parameters<typeof asPlane>[1]) => {
    const face = asPlane(m, t);
    if (!face)
      return store
        .getState()
        .say({ kind: "notice", text: "A flat face can be extruded; this one is round.", about: [] });
    picking.end();
    change((d) => {
      const { sketch: _, regions: __, ...rest } = d;
      return { ...rest, face };
    });
  };
  const picking = usePicking(store, { id: "face", name: "Face to extrude", take: ["face"], give }),
    active = picking.isActive;
  const back = () =>
    change((d) => {
      const { face: _, ...rest } = d,
        sketch = document.steps.filter((s) => s.kind === "sketch").at(-1)?.id;
      return { ...rest, ...(sketch && { sketch }) };
    });
  return (
    <div className="flex items-center justify-between gap-2 text-xs">
      <span className="truncate" title={draft.face && calledIn(store, draft.face)}>
        {draft.face ? (
          <>
            <span className="quiet">Face </span>
            {calledIn(store, draft.face)}
          </>
        ) : (
          <span className="quiet">of a sketch, or</span>
        )}
      </span>
      <span className="flex shrink-0 gap-1">
        {draft.face && hasSketch && (
          <button type="button" className="btn btn-xs" onClick={back}>
            A sketch
          </button>
        )}
        <button
          type="button"
          aria-pressed={active}
          className={`btn btn-xs ${active ? "btn-primary" : ""}`}
          onClick={picking.toggle}
        >
          {active ? "click a flat face" : draft.face ? "Another face" : "A face"}
        </button>
      </span>
    </div>
  );
}

/** How the ends of walls along open outlines finish. */
function WallEnds({ store, draft, set }: { store: BenchStore; draft: Swept; set: (t: Thin) => void }) {
  const document = store((s) => s.history.present),
    stored = draft.sketch ? sketchOf(document, draft.sketch) : undefined,
    sketch = stored && diagnosisOf(stored, document.units)?.sketch,
    { thin } = draft;
  if (!sketch || !thin || draft.regions || findRegions(sketch).regions.length) return null;
  const ends = openChains(sketch).flatMap((chain) => {
    const [a, b] = [chain[0]!, chain[chain.length - 1]!];
    return [`${a.curve}.${a.back ? "end" : "start"}`, `${b.curve}.${b.back ? "start" : "end"}`];
  });
  return (
    <div className="max-h-32 space-y-1 overflow-y-auto">
      {ends.map((end) => (
        <label key={end} className="flex items-center justify-between gap-2 text-xs">
          <span className="quiet">{end.replace(".", ", ")}</span>
          <select
            aria-label={`How ${end} finishes`}
            className="select select-xs w-44"
            value={thin.ends?.[end] ?? ""}
            onChange={(e) => {
              const { [end]: _, ...rest } = thin.ends ?? {};
              set({ ...thin, ends: e.target.value ? { ...rest, [end]: e.target.value as WallFinish } : rest });
            }}
          >
            <option value="">closes a small gap</option>
            <option value="first">on to the first face</option>
            <option value="next">on to the face after it</option>
            <option value="square">square, as drawn</option>
          </select>
        </label>
      ))}
    </div>
  );
}

/** A wall along the outline instead of the full volume. */
export function ThinFields<S extends Swept>({ store, draft, change }: CardProps<S>) {
  const unit = store((s) => s.history.present.units),
    { thin } = draft;
  const set = (t: Thin | undefined) =>
    change((d) => {
      const { thin: _, ...rest } = d;
      return (t ? { ...rest, thin: t } : rest) as S;
    });
  return (
    <>
      <Tick
        label="Thin wall along the outline"
        on={thin !== undefined}
        onChange={(on) => set(on ? { thickness: unit === "mm" ? "2" : "1/16", side: "inside" } : undefined)}
      />
      {thin && (
        <>
          <SizeInput
            store={store}
            label="Thickness"
            value={thin.thickness}
            onChange={(thickness) => set({ ...thin, thickness })}
          />
          <Choice
            small
            label="Side of the wall"
            value={thin.side}
            of={[
              ["inside", "inside"],
              ["outside", "outside"],
              ["middle", "half each"],
            ]}
            onChange={(side) => set({ ...thin, side })}
          />
          {draft.operation !== "cut" && draft.operation !== "keep" && (
            <WallEnds store={store} draft={draft} set={set} />
          )}
        </>
      )}
    </>
  );
}

/** The other way along the normal, or about the axis. */
export function TurnRound<S extends Swept>({ draft, change }: Pick<CardProps<S>, "draft" | "change">) {
  return (
    <button
      type="button"
      aria-pressed={draft.reverse === true}
      className="btn btn-xs"
      onClick={() =>
        change((d) => {
          const { reverse, ...rest } = d;
          return (reverse ? rest : { ...rest, reverse: true }) as S;
        })
      }
    >
      Turn round
    </button>
  );
}
