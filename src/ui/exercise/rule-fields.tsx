import { Tick } from "./fields";
import { startRule } from "@/core/check/exercise/rubric";
import { STEP_KIND_NAMES, type StepKindName, type WayRule } from "@/core/check/kinds/ways/rule";

const WAYS: Record<WayRule["way"], string> = {
  pattern: "a pattern instead of copies",
  kinds: "kinds of steps",
  "most-steps": "at most so many steps",
  names: "names by a rule",
  define: "Define the rest",
  wall: "no wall thinner than",
};

/** What a way of building has to keep to. */
export function RuleFields({ rule, set }: { rule: WayRule; set: (r: WayRule) => void }) {
  return (
    <div className="flex flex-wrap items-center gap-3 text-sm">
      <select
        className="select select-sm w-56"
        aria-label="What is asked of the way of building"
        value={rule.way}
        onChange={(e) => set(startRule(e.target.value as WayRule["way"]))}
      >
        {Object.entries(WAYS).map(([way, text]) => (
          <option key={way} value={way}>
            {text}
          </option>
        ))}
      </select>
      {rule.way === "most-steps" && (
        <Amount
          label="Steps at most"
          value={rule.most}
          set={(most) => set({ ...rule, most: Math.max(1, Math.round(most)) })}
        />
      )}
      {rule.way === "wall" && (
        <Amount label="Least wall, mm" value={rule.least} set={(least) => least > 0 && set({ ...rule, least })} />
      )}
      {rule.way === "define" && (
        <select
          className="select select-sm w-48"
          aria-label="Define the rest"
          value={rule.used ? "used" : "not"}
          onChange={(e) => set({ ...rule, used: e.target.value === "used" })}
        >
          <option value="not">must not be used</option>
          <option value="used">must be used</option>
        </select>
      )}
      {rule.way === "names" && (
        <>
          <label className="flex items-center gap-2">
            Part
            <input
              className="input input-sm w-56"
              maxLength={120}
              value={rule.part ?? ""}
              title="{number}, {title} and {initials} stand for what they are"
              onChange={(e) => set({ ...rule, part: e.target.value || undefined })}
            />
          </label>
          <Tick
            label="Every step has a name of its own"
            on={rule.steps ?? false}
            set={(steps) => set({ ...rule, steps })}
          />
        </>
      )}
      {rule.way === "kinds" && (
        <div className="flex flex-wrap gap-x-6">
          <Kinds label="Only these" chosen={rule.allowed} set={(allowed) => set({ ...rule, allowed })} />
          <Kinds label="Each of these" chosen={rule.asked} set={(asked) => set({ ...rule, asked })} />
        </div>
      )}
    </div>
  );
}

function Kinds({
  label,
  chosen = [],
  set,
}: {
  label: string;
  chosen?: readonly StepKindName[] | undefined;
  set: (list: StepKindName[] | undefined) => void;
}) {
  return (
    <fieldset>
      <legend className="quiet text-xs">{label}</legend>
      <div className="flex flex-wrap gap-x-3">
        {STEP_KIND_NAMES.map((k) => (
          <label key={k} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={chosen.includes(k)}
              onChange={() => {
                const next = STEP_KIND_NAMES.filter((o) => (o === k ? !chosen.includes(o) : chosen.includes(o)));
                set(next.length ? next : undefined);
              }}
            />
            {k}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function Amount({ label, value, set }: { label: string; value: number; set: (n: number) => void }) {
  return (
    <label className="flex items-center gap-2">
      {label}
      <input
        type="number"
        className="input input-sm figures w-20 text-right"
        min={0}
        step="any"
        value={value}
        onChange={(e) => e.target.value !== "" && set(Number(e.target.value))}
      />
    </label>
  );
}
