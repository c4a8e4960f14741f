"use client";

import type { HoleStep } from "@/core/part/steps/hole/schema";
import { fromTable, HOLE_TABLES, type Fit } from "@/core/part/steps/hole/tables";
import { CardFrame, Choice, SizeInput, type CardProps } from "./card";
import { HoleDepth } from "./hole-depth";
import { HolePlaces } from "./hole-placing";
import { HolePoints } from "./hole-points";
import { HoleThread } from "./hole-thread";

/** Which table and row a hole comes from, where it does. */
function tableOf({ from }: HoleStep) {
  const table = HOLE_TABLES.find((t) => t.id === from?.table);
  return { table, row: table?.rows.find((r) => r.name === from?.row), fit: (from?.fit ?? "medium") as Fit };
}

/** Sizes that are typed belong to no table any more. */
const typedInto =
  (change: CardProps<HoleStep>["change"]) =>
  (next: Partial<HoleStep>): void =>
    change((d) => {
      const { from: _, ...rest } = d;
      return { ...rest, ...next };
    });

/** The card of a hole: where, which sizes (typed or from a table), how deep, and how it opens. */
export function HoleCard({ store, draft, change }: CardProps<HoleStep>) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode);
  const before = document.steps.slice(0, mode.kind === "step" ? mode.at : undefined),
    card = { store, draft, change };
  return (
    <CardFrame store={store} draft={draft} title="Hole">
      <HolePlaces {...card} before={before} />
      <HolePoints {...card} />
      <HoleTable {...card} />
      <SizeInput
        store={store}
        autoFocus
        label="Diameter"
        value={draft.diameter}
        onChange={(diameter) => typedInto(change)({ diameter })}
      />
      <HoleHead {...card} />
      <HoleDepth {...card} before={before} />
      <HoleThread {...card} usual={tableOf(draft).row?.thread} />
    </CardFrame>
  );
}

/** A size from a table of clearance and tapping holes, and its fit. */
function HoleTable({ store, draft, change }: CardProps<HoleStep>) {
  const unit = store((s) => s.history.present.units),
    { table, row, fit } = tableOf(draft),
    typed = typedInto(change);
  return (
    <>
      <div className="flex gap-1">
        <select
          aria-label="Table"
          className="select select-xs min-w-0 flex-1"
          value={table?.id ?? ""}
          onChange={(e) => {
            const t = HOLE_TABLES.find((x) => x.id === e.target.value);
            if (t)
              change((d) =>
                fromTable(
                  d,
                  t,
                  t.rows.find((r) => r.name === (unit === "mm" ? "M6" : "1/4 in")) ?? t.rows[0]!,
                  "medium",
                ),
              );
            else typed({});
          }}
        >
          <option value="">typed sizes</option>
          {HOLE_TABLES.map((t) => (
            <option key={t.id} value={t.id}>
              {t.label}
            </option>
          ))}
        </select>
        {table && (
          <select
            aria-label="Size"
            className="select select-xs w-24"
            value={row?.name}
            onChange={(e) =>
              change((d) =>
                fromTable(
                  d,
                  table,
                  table.rows.find((r) => r.name === e.target.value)!,
                  fit,
                ),
              )
            }
          >
            {table.rows.map((r) => (
              <option key={r.name}>{r.name}</option>
            ))}
          </select>
        )}
      </div>
      {table && row?.fine && (
        <Choice
          small
          label="Fit"
          value={fit}
          of={[
            ["fine", "fine"],
            ["medium", "medium"],
            ["coarse", "coarse"],
          ]}
          onChange={(f) => change((d) => fromTable(d, table, row, f))}
        />
      )}
    </>
  );
}

function headOf(kind: HoleStep["head"]["kind"], { diameter }: HoleStep): HoleStep["head"] {
  const twice = `=${String(diameter).replace(/^=/, "")}*2`;
  if (kind === "plain") return { kind };
  return kind === "counterbore" ? { kind, diameter: twice, depth: diameter } : { kind, diameter: twice, angle: 90 };
}

/** How a hole opens: plain, with a counterbore or a countersink. */
function HoleHead({ store, draft, change }: CardProps<HoleStep>) {
  const { head } = draft,
    typed = typedInto(change);
  return (
    <>
      <Choice
        small
        label="Opening"
        value={head.kind}
        of={[
          ["plain", "Plain"],
          ["counterbore", "Counterbore"],
          ["countersink", "Countersink"],
        ]}
        onChange={(kind) => typed({ head: headOf(kind, draft) })}
      />
      {head.kind !== "plain" && (
        <div className="flex gap-2">
          <SizeInput
            store={store}
            label="Its diameter"
            value={head.diameter}
            onChange={(diameter) => typed({ head: { ...head, diameter } })}
          />
          {head.kind === "counterbore" ? (
            <SizeInput
              store={store}
              label="Its depth"
              value={head.depth}
              onChange={(depth) => typed({ head: { ...head, depth } })}
            />
          ) : (
            <SizeInput
              store={store}
              angle
              label="Its angle"
              value={head.angle}
              onChange={(angle) => typed({ head: { ...head, angle } })}
            />
          )}
        </div>
      )}
    </>
  );
}
