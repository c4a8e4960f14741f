"use client";

import type { PartDocument } from "@/core/part/document";
import type { HoleStep } from "@/core/part/steps/hole/schema";
import { Choice, RefField, SizeInput, Tick, type CardProps } from "./card";
import { asPlane, planeOptions } from "./options";

type Kind = HoleStep["extent"]["kind"];
function extentOf(kind: Kind, unit: PartDocument["units"]): HoleStep["extent"] {
  if (kind === "depth") return { kind, depth: unit === "mm" ? "10" : "1/2" };
  return kind === "face" ? { kind, face: { datum: "top" } } : { kind };
}

/** How deep a hole goes, and how it ends. */
export function HoleDepth({ store, draft, change, before }: CardProps<HoleStep> & { before: PartDocument["steps"] }) {
  const unit = store((s) => s.history.present.units),
    { extent } = draft;
  return (
    <>
      <Choice
        small
        label="How deep"
        value={extent.kind}
        of={[
          ["through", "Through"],
          ["depth", "To depth"],
          ["face", "As far as a face"],
        ]}
        onChange={(kind) => change((d) => ({ ...d, extent: extentOf(kind, unit) }))}
      />
      {extent.kind === "depth" && (
        <SizeInput
          store={store}
          label="Depth of the full diameter"
          value={extent.depth}
          onChange={(depth) => change((d) => ({ ...d, extent: { kind: "depth", depth } }))}
        />
      )}
      {extent.kind === "face" && (
        <RefField
          store={store}
          name="As far as"
          hint="click a face"
          take={["face"]}
          value={extent.face}
          options={planeOptions(before)}
          onChoose={(face) => change((d) => ({ ...d, extent: { kind: "face", face } }))}
          onPick={(m, t) => {
            const face = asPlane(m, t);
            if (face) change((d) => ({ ...d, extent: { kind: "face", face } }));
          }}
        />
      )}
      {extent.kind !== "through" && (
        <Tick
          label="coned bottom"
          on={draft.tip !== undefined}
          onChange={(on) =>
            change((d) => {
              const { tip: _, ...rest } = d;
              return on ? { ...rest, tip: 118 } : rest;
            })
          }
        />
      )}
      {draft.tip !== undefined && extent.kind !== "through" && (
        <SizeInput
          store={store}
          angle
          label="Angle of the cone"
          value={draft.tip}
          onChange={(tip) => change((d) => ({ ...d, tip }))}
        />
      )}
    </>
  );
}
