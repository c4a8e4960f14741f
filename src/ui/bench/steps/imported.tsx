"use client";

import { useMemo } from "react";
import { saidInStep, type StepSaid } from "@/core/formats/step-said";
import type { ImportedStep } from "@/core/part/steps/imported/schema";
import { CardFrame, type CardProps } from "./card";

/** The card of a body from a file: which file; there is nothing in it to be changed. */
export function ImportedCard({ store, draft }: CardProps<ImportedStep>) {
  // a file may be long, and the card is drawn often
  const said = useMemo(() => saidInStep(draft.step), [draft.step]);
  return (
    <CardFrame store={store} draft={draft} title="Body from a file">
      <p className="figures break-all">{draft.file || "STEP"}</p>
      <Said {...said} />
      <p className="quiet">
        Its faces can be built on, measured and printed. Bring another file on the exercise’s page.
      </p>
    </CardFrame>
  );
}

/** What the file says of the part that the Bench does not take over. */
function Said({ name, colours }: StepSaid) {
  if (!name && !colours) return null;
  const shades = colours === 1 ? "one colour" : `${colours} colours`;
  return (
    <p className="quiet">
      {name && `The file calls it “${name}”. `}
      {colours > 0 && `It holds ${shades}, not taken over: give the part its own under Colour.`}
    </p>
  );
}
