"use client";

import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { useState } from "react";
import type { ExerciseChange } from "@/core/exercise/change";
import { newLine, startRule, type RubricLine } from "@/core/check/exercise/rubric";
import { CHECK_NAMES, checkKind } from "@/core/check/kinds/kinds";
import { refuse, type Outcome } from "@/core/units/refusal";
import { Amount, TextBox, Tick } from "./fields";
import type { Cost } from "./costs";
import { RuleFields } from "./rule-fields";
import { pointsOf } from "./standing";

interface SizeChoice {
  readonly id: string;
  readonly text: string;
}
type Apply = (change: ExerciseChange) => Outcome<void>;

/** A new line of a kind; several of one kind are told apart by a number. */
function freshLine(check: RubricLine["check"], known: readonly RubricLine[]): RubricLine {
  const ids = new Set(known.map((l) => l.id));
  let id: string = check;
  for (let n = 2; ids.has(id); n++) id = `${check}-${n}`;
  return { ...newLine(check, 2), id };
}

interface Props {
  readonly rubric: readonly RubricLine[];
  /** What the Sheet prints, to choose from. */
  readonly sizes: readonly SizeChoice[];
  readonly apply: Apply;
  /** What typical mistakes would cost in a line. */
  readonly costs: (line: string) => readonly Cost[];
  readonly isTried: boolean;
  /** How far the trial is; empty while nothing is done. */
  readonly trying: string;
  readonly isBuilt: boolean;
}

/** The lines of a rubric: what is looked at, their points, how those are given, and what mistakes would cost. */
export function RubricEditor(p: Props) {
  const { rubric, apply } = p;
  const [open, setOpen] = useState<string>();
  return (
    <table className="table table-sm table-fixed" aria-label="Rubric">
      <thead>
        <tr>
          <th className="w-[26%]">Line</th>
          <th className="w-20 text-right">Points</th>
          <th className="w-36">Given</th>
          <th className="whitespace-normal">{costHeading(p)}</th>
          <th className="w-[8.75rem]" />
        </tr>
      </thead>
      <tbody>
        {rubric.map((l, at) => (
          <Row
            key={l.id}
            line={l}
            sizes={p.sizes}
            isOpen={open === l.id}
            toggle={() => setOpen(open === l.id ? undefined : l.id)}
            apply={apply}
            costs={p.costs(l.id)}
            isTried={p.isTried}
            isFirst={at === 0}
            isLast={at === rubric.length - 1}
          />
        ))}
      </tbody>
      <tbody>
        <tr>
          <td>
            <select
              className="select select-sm w-full min-w-40"
              aria-label="Add a line"
              value=""
              onChange={(e) => {
                const line = freshLine(e.target.value as RubricLine["check"], rubric);
                apply({ do: "line", line });
                if (line.check === "ways") setOpen(line.id);
              }}
            >
              <option value="">Add a line …</option>
              {CHECK_NAMES.map((name) => (
                <option key={name} value={name}>
                  {checkKind(name).start.title}
                </option>
              ))}
            </select>
          </td>
          <td className="figures text-right font-semibold text-base-content" data-testid="rubric-sum">
            {pointsOf({ rubric: [...rubric] })}
          </td>
          <td colSpan={3} />
        </tr>
      </tbody>
    </table>
  );
}

function costHeading({ isTried, trying, isBuilt }: Props): string {
  if (trying) return `What mistakes would cost: ${trying}`;
  if (isTried) return "What typical mistakes would cost";
  return isBuilt
    ? "What typical mistakes would cost: tried in a moment"
    : "Tried on typical mistakes when there is a part";
}

interface RowProps {
  readonly line: RubricLine;
  readonly sizes: readonly SizeChoice[];
  readonly isOpen: boolean;
  readonly toggle: () => void;
  readonly apply: Apply;
  readonly costs: readonly Cost[];
  readonly isTried: boolean;
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

function Row(p: RowProps) {
  const { line: l, apply } = p;
  const { start } = checkKind(l.check);
  const change = (what: Partial<RubricLine>) => apply({ do: "line", line: { ...l, ...what } });
  const about = [
    l.title === start.title ? "" : start.title,
    l.bonus ? "bonus" : "",
    l.must ? "must be met" : "",
    l.only ? `${l.only.length} of ${p.sizes.length} sizes` : "",
  ];
  return (
    <>
      <tr data-rubric-line={l.id}>
        <td>
          <TextBox
            label={`Title of ${l.title || start.title}`}
            hidden
            value={l.title}
            most={80}
            take={(title) => change({ title })}
          />
          <span className="quiet text-xs">{about.filter(Boolean).join(" · ")}</span>
        </td>
        <td>
          <Amount
            ariaLabel={`Points for ${l.title}`}
            value={l.points}
            unit=""
            width="whole"
            take={(points) => change({ points: points! })}
          />
        </td>
        <td>
          <Given line={l} change={change} />
        </td>
        <td className="text-xs">
          {p.costs.map((c) => (
            <span key={c.label} className="block" title={c.label}>
              {c.short} <span className="figures whitespace-nowrap text-accent">−{c.cost}</span>
            </span>
          ))}
          {p.isTried && !p.costs.length && (
            <span className="quiet">{l.check === "hand" ? "by hand" : "nothing tried"}</span>
          )}
        </td>
        <td className="whitespace-nowrap text-right">
          <LineButtons {...p} />
        </td>
      </tr>
      {p.isOpen && (
        <tr>
          <td colSpan={5} className="bg-base-200">
            <More line={l} sizes={p.sizes} change={change} />
          </td>
        </tr>
      )}
    </>
  );
}

function LineButtons({ line: l, isOpen, toggle, apply, isFirst, isLast }: RowProps) {
  const move = (by: number) => apply({ do: "move-line", id: l.id, by });
  const icon = "btn btn-ghost btn-xs px-1";
  return (
    <>
      <button type="button" className="btn btn-ghost btn-xs" aria-expanded={isOpen} onClick={toggle}>
        More
      </button>
      <button type="button" className={icon} aria-label={`${l.title} up`} disabled={isFirst} onClick={() => move(-1)}>
        <ArrowUp size={14} />
      </button>
      <button type="button" className={icon} aria-label={`${l.title} down`} disabled={isLast} onClick={() => move(1)}>
        <ArrowDown size={14} />
      </button>
      <button
        type="button"
        className={icon}
        aria-label={`Take ${l.title} out`}
        onClick={() => apply({ do: "drop-line", id: l.id })}
      >
        <Trash2 size={14} />
      </button>
    </>
  );
}

/** How the points of a line follow from what was found. */
function Given({ line: l, change }: { line: RubricLine; change: (what: Partial<RubricLine>) => Outcome<void> }) {
  const { limit, items, start } = checkKind(l.check);
  const { scoring } = l;
  if (l.check === "hand") return <span className="quiet">by hand</span>;
  const share = limit?.isShare ? 100 : 1;
  return (
    <>
      <select
        aria-label={`How ${l.title} is given`}
        className="select select-sm w-full min-w-28"
        value={scoring.mode}
        onChange={(e) => {
          const mode = e.target.value as RubricLine["scoring"]["mode"];
          change({ scoring: mode === "falling" ? { mode, limit: start.limit ?? 1 } : { mode } });
        }}
      >
        <option value="all">all or nothing</option>
        {limit && <option value="falling">falling</option>}
        {items && <option value="share">by the share</option>}
      </select>
      {scoring.mode === "falling" && limit && (
        <span className="quiet mt-1 flex flex-wrap items-center gap-x-1 text-xs">
          none at
          <Amount
            ariaLabel={`Limit for ${l.title}`}
            value={scoring.limit * share}
            unit=""
            width="small"
            take={(n) =>
              n! > 0
                ? change({ scoring: { mode: "falling", limit: n! / share } })
                : refuse("bad-limit", "Say at what there are no points left, above 0.")
            }
          />
          {limit.unit}
        </span>
      )}
    </>
  );
}

/** What few lines need. */
function More(p: {
  line: RubricLine;
  sizes: readonly SizeChoice[];
  change: (what: Partial<RubricLine>) => Outcome<void>;
}) {
  const { line: l, change } = p;
  return (
    <div className="flex flex-wrap items-start gap-x-6 gap-y-2 py-1">
      <Tick
        label="Bonus: lifts the points, not what they are out of"
        on={l.bonus ?? false}
        set={(on) => change({ bonus: on || undefined })}
      />
      <Tick
        label="Must be met, else nothing counts"
        on={l.must ?? false}
        set={(on) => change({ must: on || undefined })}
      />
      {l.check === "sketches" && (
        <Tick
          label="Sketches that no step uses count too"
          on={l.unused ?? false}
          set={(on) => change({ unused: on || undefined })}
        />
      )}
      {l.check === "sizes" && p.sizes.length > 0 && <SizeChoices {...p} />}
      {l.check === "ways" && <RuleFields rule={l.rule ?? startRule("pattern")} set={(rule) => change({ rule })} />}
    </div>
  );
}

function SizeChoices({
  line,
  sizes,
  change,
}: {
  line: RubricLine;
  sizes: readonly SizeChoice[];
  change: (what: Partial<RubricLine>) => Outcome<void>;
}) {
  const chosen = new Set(line.only ?? sizes.map((s) => s.id));
  const toggle = (id: string) => {
    const next = sizes.map((s) => s.id).filter((s) => (s === id ? !chosen.has(s) : chosen.has(s)));
    // one at least: a line about no size asks for nothing
    if (next.length) change({ only: next.length === sizes.length ? undefined : next });
  };
  return (
    <fieldset className="w-full">
      <legend className="quiet text-xs">Which printed sizes</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {sizes.map((choice) => (
          <label key={choice.id} className="flex items-center gap-1.5 text-sm">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={chosen.has(choice.id)}
              onChange={() => toggle(choice.id)}
            />
            <span className="figures">{choice.text}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
