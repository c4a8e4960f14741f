"use client";

import type { MirrorStep } from "@/core/part/steps/mirror/schema";
import { CardFrame, RefField, type CardProps } from "./card";
import { OfField } from "./of-field";
import { asPlane, planeOptions } from "./options";

/** The card of a mirror: what, and about which plane or face. */
export function MirrorCard({ store, draft, change }: CardProps<MirrorStep>) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode),
    at = mode.kind === "step" ? mode.at : document.steps.length;
  return (
    <CardFrame store={store} draft={draft} title="Mirror">
      <OfField store={store} of={draft.of} at={at} onChange={(of) => change((d) => ({ ...d, of }))} />
      <RefField
        store={store}
        name="About"
        hint="click a flat face"
        take={["face"]}
        value={draft.about}
        options={planeOptions(document.steps.slice(0, at))}
        onChoose={(about) => change((d) => ({ ...d, about }))}
        onPick={(m, t) => {
          const about = asPlane(m, t);
          if (about) change((d) => ({ ...d, about }));
        }}
      />
    </CardFrame>
  );
}
