import { STEP_KIND_NAMES } from "@/core/check/kinds/ways/rule";

/** Kinds of steps that the Bench offers on a handout. @param start none: all of them */
export function StepChoice({ start }: { start: readonly string[] | undefined }) {
  return (
    <details className="w-full">
      <summary className="cursor-pointer text-sm text-accent">Steps that may be used</summary>
      <fieldset className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="Steps that may be used">
        {STEP_KIND_NAMES.filter((k) => k !== "sketch").map((k) => (
          <label key={k} className="flex items-center gap-2">
            <input
              type="checkbox"
              name="step"
              value={k}
              className="checkbox checkbox-sm"
              defaultChecked={start ? start.includes(k) : true}
            />
            {k}
          </label>
        ))}
      </fieldset>
    </details>
  );
}
