"use client";

import type { ExtrudeStep, Extent } from "@/core/part/steps/extrude/schema";
import { asFace, planeOptions } from "./options";
import { CardFrame, Choice, RefField, SizeInput, Tick, type CardProps } from "./card";
import { choiceOf } from "./regions";
import { RegionsLine, SweepHead, ThinFields, TurnRound } from "./sweep";

const EXTENTS = [
  ["depth", "To depth"],
  ["both", "Both ways"],
  ["two", "Two depths"],
  ["through", "Through"],
  ["face", "As far as a face"],
  ["meet", "Until it meets the part"],
] as const;

/** The card of an extrude step: what it does, how far, from which sketch; the model follows while typing. */
export function ExtrudeCard({ store, draft, change }: CardProps<ExtrudeStep>) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode);
  const before = document.steps.slice(0, mode.kind === "step" ? mode.at : undefined);
  const choice = draft.face ? undefined : choiceOf(draft, document);
  // nothing closes: a wall is all that can be built, and what asks for it is in sight
  const isOpenOutline = choice !== undefined && !choice.regions.length;
  const { extent } = draft,
    depth = "depth" in extent ? extent.depth : document.units === "mm" ? "10" : "1/2";
  const set = (e: Extent) => change((d) => ({ ...d, extent: e }));
  const setKind = (kind: Extent["kind"]) =>
    set(
      kind === "through" || kind === "meet"
        ? { kind }
        : kind === "face"
          ? { kind, face: { datum: "top" } }
          : kind === "two"
            ? { kind, depth, back: depth }
            : { kind, depth },
    );
  const allowed = EXTENTS.filter(([k]) =>
    k === "through"
      ? draft.operation === "cut" || draft.operation === "keep"
      : k !== "meet" || draft.operation !== "cut",
  );
  return (
    <CardFrame store={store} draft={draft} title="Extrude">
      <SweepHead
        store={store}
        draft={draft}
        change={change}
        onOperation={(operation) =>
          change((d) => ({
            ...d,
            operation,
            extent:
              (operation === "add" || operation === "separate") && extent.kind === "through"
                ? { kind: "depth", depth }
                : d.extent,
          }))
        }
      />
      <Choice small label="How far" value={extent.kind} of={allowed} onChange={setKind} />
      {"depth" in extent && (
        <div className="flex flex-wrap items-end gap-2">
          <SizeInput
            store={store}
            autoFocus
            label={extent.kind === "both" ? (extent.each ? "Depth to each side" : "Whole depth") : "Depth"}
            value={extent.depth}
            onChange={(v) => set({ ...extent, depth: v })}
          />
          {extent.kind === "two" && (
            <SizeInput
              store={store}
              label="The other way"
              value={extent.back}
              onChange={(v) => set({ ...extent, back: v })}
            />
          )}
        </div>
      )}
      {extent.kind === "both" && (
        <Tick
          label="the depth goes to each side"
          on={extent.each === true}
          onChange={(each) => set({ kind: "both", depth: extent.depth, ...(each && { each }) })}
        />
      )}
      {extent.kind === "face" && (
        <>
          <RefField
            store={store}
            name="Face"
            hint="click a face"
            take={["face"]}
            value={extent.face}
            options={planeOptions(before)}
            onChoose={(face) => set({ ...extent, face })}
            onPick={(m, t) => {
              const face = asFace(m, t);
              if (face) set({ ...extent, face });
            }}
          />
          <SizeInput
            store={store}
            label="Beyond it by"
            value={extent.offset ?? 0}
            onChange={(offset) => set({ ...extent, offset })}
          />
        </>
      )}
      {extent.kind !== "both" && extent.kind !== "through" && <TurnRound draft={draft} change={change} />}
      <details className="text-xs" open={draft.draft !== undefined || draft.thin !== undefined || isOpenOutline}>
        <summary className="quiet cursor-pointer">Leaning sides, thin wall</summary>
        <div className="space-y-2 pt-1.5">
          <SizeInput
            store={store}
            angle
            label="Draft angle (inwards)"
            value={draft.draft ?? 0}
            onChange={(v) =>
              change((d) => {
                const { draft: _, ...rest } = d;
                return Number(v) === 0 ? rest : { ...rest, draft: v };
              })
            }
          />
          <ThinFields store={store} draft={draft} change={change} />
        </div>
      </details>
      {!draft.face && <RegionsLine store={store} draft={draft} change={change} />}
    </CardFrame>
  );
}
