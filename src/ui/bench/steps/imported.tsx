"use client";

import type { ImportedStep } from "@/core/part/steps/imported/schema";
import { CardFrame, type CardProps } from "./card";

/** The card of a body from a file: which file; there is nothing in it to be changed. */
export function ImportedCard({ store, draft }: CardProps<ImportedStep>) {
  return (
    <CardFrame store={store} draft={draft} title="Body from a file">
      <p className="figures break-all">{draft.file || "STEP"}</p>
      <p className="quiet">
        Its faces can be built on, measured and printed. Bring another file on the exercise’s page.
      </p>
    </CardFrame>
  );
}
