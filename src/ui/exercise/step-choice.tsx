import { STEP_KIND_NAMES } from "@/core/check/kinds/ways/rule";
import { Tick } from "./fields";
import type { TermsSaid } from "./terms-fields";

const OFFERED = STEP_KIND_NAMES.filter((k) => k !== "sketch");

/** Kinds of steps that the Bench offers on a handout; all or none ticked: nothing is held back. */
export function StepChoice({ terms, say }: TermsSaid) {
  const chosen: readonly string[] = terms.mayUse ?? OFFERED;
  const set = (kind: (typeof OFFERED)[number], on: boolean) => {
    const next = OFFERED.filter((k) => (k === kind ? on : chosen.includes(k)));
    say({ mayUse: next.length && next.length < OFFERED.length ? next : undefined });
  };
  return (
    <details className="w-full">
      <summary className="cursor-pointer text-sm text-accent">Steps that may be used</summary>
      <fieldset className="mt-2 flex flex-wrap gap-x-4 gap-y-1" aria-label="Steps that may be used">
        {OFFERED.map((k) => (
          <Tick key={k} label={k} on={chosen.includes(k)} set={(on) => set(k, on)} />
        ))}
      </fieldset>
    </details>
  );
}
