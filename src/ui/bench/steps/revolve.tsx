"use client";

import type { RevolveStep } from "@/core/part/steps/revolve/schema";
import { asAxis, axisOptions } from "./options";
import { CardFrame, Choice, RefField, SizeInput, type CardProps } from "./card";
import { RegionsLine, SweepHead, ThinFields, TurnRound } from "./sweep";

/** The card of a revolve step. */
export function RevolveCard({ store, draft, change }: CardProps<RevolveStep>) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode);
  const before = document.steps.slice(0, mode.kind === "step" ? mode.at : undefined),
    { turn } = draft;
  const set = (t: RevolveStep["turn"]) => change((d) => ({ ...d, turn: t }));
  const angle = "angle" in turn ? turn.angle : "180";
  return (
    <CardFrame store={store} draft={draft} title="Revolve">
      <SweepHead store={store} draft={draft} change={change} />
      <RefField
        store={store}
        name="Turns about"
        hint="click an edge or round face"
        take={["edge", "face"]}
        value={draft.about}
        options={axisOptions(before, document.units, draft.sketch)}
        onChoose={(about) => change((d) => ({ ...d, about }))}
        onPick={(m, t) => {
          const about = asAxis(m, t);
          if (about) change((d) => ({ ...d, about }));
        }}
      />
      {!draft.about && <p className="quiet text-xs">Left open: the sketch&apos;s only centre line.</p>}
      <Choice
        small
        label="How far round"
        value={turn.kind}
        of={[
          ["whole", "Whole turn"],
          ["angle", "Angle"],
          ["both", "Both ways"],
          ["two", "Two angles"],
        ]}
        onChange={(kind) =>
          set(kind === "whole" ? { kind } : kind === "two" ? { kind, angle, back: angle } : { kind, angle })
        }
      />
      {turn.kind !== "whole" && (
        <SizeInput
          store={store}
          angle
          autoFocus
          label={turn.kind === "both" ? "Whole angle" : "Angle"}
          value={turn.angle}
          onChange={(v) => set({ ...turn, angle: v })}
        />
      )}
      {turn.kind === "two" && (
        <SizeInput
          store={store}
          angle
          label="The other way"
          value={turn.back}
          onChange={(v) => set({ ...turn, back: v })}
        />
      )}
      {turn.kind === "angle" && <TurnRound draft={draft} change={change} />}
      <ThinFields store={store} draft={draft} change={change} />
      <RegionsLine store={store} draft={draft} change={change} />
    </CardFrame>
  );
}
