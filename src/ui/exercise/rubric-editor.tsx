"use client";

import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { useState } from "react";
import type { RubricLine } from "@/core/check/exercise/rubric";
import { CHECK_NAMES, checkKind } from "@/core/check/kinds/kinds";
import { startRule } from "@/core/check/exercise/rubric";
import { draftOf, freshDraft, type LineDraft } from "./rubric-draft";
import { Templates, type RubricTemplate } from "./rubric-templates";
import { RuleFields, Tick } from "./rule-fields";

interface SizeChoice {
  readonly id: string;
  readonly text: string;
}
/** The lines of a rubric: what is looked at, their points, and how those are given. */
export function RubricEditor({
  rubric,
  sizes,
  templates,
  keep,
}: {
  rubric: readonly RubricLine[];
  /** What the Sheet prints, to choose from. */
  sizes: readonly SizeChoice[];
  templates: readonly RubricTemplate[];
  /** Keeps a rubric for the course under a name. @returns what is to be said */
  keep: ((name: string, rubric: readonly RubricLine[]) => Promise<string>) | undefined;
}) {
  const [lines, setLines] = useState(() => rubric.map(draftOf));
  const [open, setOpen] = useState<string>();
  const change = (id: string, what: Partial<LineDraft>) =>
    setLines((list) => list.map((l) => (l.id === id ? { ...l, ...what } : l)));
  const move = (at: number, by: number) =>
    setLines((list) => {
      const next = [...list];
      const [line] = next.splice(at, 1);
      next.splice(at + by, 0, line!);
      return next;
    });
  const sum = lines.reduce((s, l) => s + (l.bonus ? 0 : Number(l.points.replace(",", ".")) || 0), 0);
  return (
    <div className="mt-3">
      <input type="hidden" name="rubric" value={JSON.stringify(lines)} />
      <table className="table table-sm" aria-label="Rubric">
        <thead>
          <tr>
            <th>Line</th>
            <th className="w-20 text-right">Points</th>
            <th className="w-40">Given</th>
            <th className="w-44">None left at</th>
            <th className="w-36" />
          </tr>
        </thead>
        <tbody>
          {lines.map((l, at) => (
            <Row
              key={l.id}
              line={l}
              sizes={sizes}
              isOpen={open === l.id}
              toggle={() => setOpen(open === l.id ? undefined : l.id)}
              change={(what) => change(l.id, what)}
              remove={() => setLines((list) => list.filter((o) => o.id !== l.id))}
              up={at > 0 ? () => move(at, -1) : undefined}
              down={at < lines.length - 1 ? () => move(at, 1) : undefined}
            />
          ))}
        </tbody>
        <tbody>
          <tr>
            <td>
              <select
                className="select select-sm w-60"
                aria-label="Add a line"
                value=""
                onChange={(e) => {
                  const line = freshDraft(e.target.value as RubricLine["check"], lines);
                  setLines([...lines, line]);
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
              {sum}
            </td>
            <td colSpan={3}>
              <Templates
                templates={templates}
                keep={keep}
                lines={lines}
                take={(t) => setLines(t.rubric.map(draftOf))}
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}

function Row({
  line: l,
  sizes,
  isOpen,
  toggle,
  change,
  remove,
  up,
  down,
}: {
  line: LineDraft;
  sizes: readonly SizeChoice[];
  isOpen: boolean;
  toggle: () => void;
  change: (what: Partial<LineDraft>) => void;
  remove: () => void;
  up: (() => void) | undefined;
  down: (() => void) | undefined;
}) {
  const { limit, items, start } = checkKind(l.check);
  const isHand = l.check === "hand";
  return (
    <>
      <tr data-rubric-line={l.id}>
        <td>
          <input
            aria-label={`Title of ${l.title || start.title}`}
            className="input input-sm w-full min-w-40"
            maxLength={80}
            value={l.title}
            onChange={(e) => change({ title: e.target.value })}
          />
          <span className="quiet text-xs">
            {[
              l.title === start.title ? "" : start.title,
              l.bonus ? "bonus" : "",
              l.must ? "must be met" : "",
              l.only ? `${l.only.length} of ${sizes.length} sizes` : "",
            ]
              .filter(Boolean)
              .join(" · ")}
          </span>
        </td>
        <td>
          <input
            aria-label={`Points for ${l.title}`}
            inputMode="decimal"
            className="input input-sm figures w-16 text-right"
            value={l.points}
            onChange={(e) => change({ points: e.target.value })}
          />
        </td>
        <td>
          {isHand ? (
            <span className="quiet">by hand</span>
          ) : (
            <select
              aria-label={`How ${l.title} is given`}
              className="select select-sm w-36"
              value={l.mode}
              onChange={(e) => change({ mode: e.target.value as LineDraft["mode"] })}
            >
              <option value="all">all or nothing</option>
              {limit && <option value="falling">falling</option>}
              {items && <option value="share">by the share</option>}
            </select>
          )}
        </td>
        <td className="whitespace-nowrap">
          {l.mode === "falling" && limit && (
            <>
              <input
                aria-label={`Limit for ${l.title}`}
                inputMode="decimal"
                className="input input-sm figures mr-2 w-16 text-right"
                value={l.limit}
                onChange={(e) => change({ limit: e.target.value })}
              />
              <span className="quiet text-xs">{limit.unit}</span>
            </>
          )}
        </td>
        <td className="whitespace-nowrap text-right">
          <button type="button" className="btn btn-ghost btn-xs" aria-expanded={isOpen} onClick={toggle}>
            More
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs px-1"
            aria-label={`${l.title} up`}
            disabled={!up}
            onClick={up}
          >
            <ArrowUp size={14} />
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs px-1"
            aria-label={`${l.title} down`}
            disabled={!down}
            onClick={down}
          >
            <ArrowDown size={14} />
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs px-1"
            aria-label={`Take ${l.title} out`}
            onClick={remove}
          >
            <Trash2 size={14} />
          </button>
        </td>
      </tr>
      {isOpen && (
        <tr>
          <td colSpan={5} className="bg-base-200">
            <div className="flex flex-wrap items-start gap-x-6 gap-y-2 py-1">
              <Tick
                label="Bonus: lifts the points, not what they are out of"
                on={l.bonus}
                set={(bonus) => change({ bonus })}
              />
              <Tick label="Must be met, else nothing counts" on={l.must} set={(must) => change({ must })} />
              {l.check === "sketches" && (
                <Tick label="Sketches that no step uses count too" on={l.unused} set={(unused) => change({ unused })} />
              )}
              {l.check === "sizes" && sizes.length > 0 && <SizeChoices line={l} sizes={sizes} change={change} />}
              {l.check === "ways" && (
                <RuleFields rule={l.rule ?? startRule("pattern")} set={(rule) => change({ rule })} />
              )}
            </div>
          </td>
        </tr>
      )}
    </>
  );
}

function SizeChoices({
  line,
  sizes,
  change,
}: {
  line: LineDraft;
  sizes: readonly SizeChoice[];
  change: (what: Partial<LineDraft>) => void;
}) {
  const chosen = new Set(line.only ?? sizes.map((s) => s.id));
  const toggle = (id: string) => {
    const next = sizes.map((s) => s.id).filter((s) => (s === id ? !chosen.has(s) : chosen.has(s)));
    const { length } = next;
    change({ only: length === sizes.length ? undefined : next });
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
