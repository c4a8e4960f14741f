"use client";

import { stepMark, withStepsCalled } from "@/core/naming/words";
import { isSolidStep, kindOf } from "@/core/part/steps/kinds";
import type { Step } from "@/core/part/steps/kinds";
import type { Of } from "@/core/part/steps/fields";
import type { BenchStore } from "../store";
import { Choice, Tick } from "./card";

/** What a mirror or pattern repeats: the whole part, or steps that are ticked. */
export function OfField({
  store,
  of,
  at,
  onChange,
}: {
  store: BenchStore;
  of: Of;
  at: number;
  onChange: (of: Of) => void;
}) {
  const document = store((s) => s.history.present);
  const steps = document.steps.slice(0, at).filter((s) => isSolidStep(s) && s.kind !== "shell" && !s.suppressed);
  const called = (s: Step) => {
    const number = withStepsCalled(stepMark(s.id), document.steps);
    return `${s.name ?? kindOf(s).read(s, document.units).title} (${number})`;
  };
  const chosen = "steps" in of ? of.steps : [];
  return (
    <>
      <Choice
        small
        label="What is repeated"
        value={"body" in of ? "body" : "steps"}
        of={[
          ["body", "The whole part"],
          ["steps", "Steps"],
        ]}
        onChange={(k) =>
          onChange(k === "body" || !steps.length ? { body: true } : { steps: [steps[steps.length - 1]!.id] })
        }
      />
      {"steps" in of && (
        <div className="max-h-28 space-y-0.5 overflow-y-auto" role="group" aria-label="Steps that are repeated">
          {steps.map((step) => (
            <Tick
              key={step.id}
              label={called(step)}
              on={chosen.includes(step.id)}
              onChange={(on) => {
                const next = steps.map((x) => x.id).filter((id) => (id === step.id ? on : chosen.includes(id)));
                if (next.length) onChange({ steps: next });
              }}
            />
          ))}
        </div>
      )}
    </>
  );
}
