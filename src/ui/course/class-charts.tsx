"use client";

import { useMemo } from "react";
import {
  Bar,
  BarChart,
  CartesianGrid,
  Cell,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import { massText, type MassUnit } from "@/core/units/amounts";
import { countTicks, roundTicks, roundWidth } from "@/core/units/ticks";
import type { ClassPart, ClassView, Missed } from "@/server/marking/class-view";

/** What a click on a chart stands for: submissions, and what they have in common. */
export interface Chosen {
  readonly title: string;
  readonly who: readonly string[];
}

const AXIS = { fontSize: 12, fill: "var(--color-base-content)" } as const;
const GRID = "var(--color-base-300)";
const TIP = {
  contentStyle: {
    background: "var(--color-base-100)",
    border: "1px solid var(--color-base-300)",
    color: "var(--color-base-content)",
    fontSize: 12,
  },
  cursor: { fill: "var(--color-base-200)" },
} as const;

function Chart({ title, children, height = 190 }: { title: string; children: React.ReactElement; height?: number }) {
  return (
    <figure aria-label={title}>
      <figcaption className="mb-1 font-semibold">{title}</figcaption>
      <div style={{ height }}>
        <ResponsiveContainer width="100%" height="100%">
          {children}
        </ResponsiveContainer>
      </div>
    </figure>
  );
}

/** So many bars over the points. */
const BARS = 10;

export function Points({ view, choose }: { view: ClassView; choose: (c: Chosen) => void }) {
  const data = useMemo(() => {
    const width = roundWidth(view.of || 1, BARS);
    const count = Math.max(1, Math.ceil(view.of / width));
    return Array.from({ length: count }, (_, i) => {
      const isLast = i === count - 1;
      const [from, to] = [i * width, isLast ? Infinity : (i + 1) * width];
      const who = view.parts.filter((p) => p.points >= from && p.points < to).map((p) => p.submission);
      return { name: `${from}–${isLast ? view.of : to}`, count: who.length, who };
    });
  }, [view]);
  const ticks = countTicks(Math.max(...data.map((d) => d.count)));
  return (
    <Chart title={`Points, of ${view.of}`}>
      <BarChart data={data} margin={{ left: -20, right: 8 }}>
        <CartesianGrid vertical={false} stroke={GRID} />
        <XAxis dataKey="name" tick={AXIS} interval="preserveStartEnd" minTickGap={8} />
        <YAxis ticks={ticks} interval={0} domain={[0, ticks.at(-1)!]} tick={AXIS} />
        <Tooltip {...TIP} formatter={(v) => [String(v), "submissions"]} />
        <Bar
          dataKey="count"
          fill="var(--color-primary)"
          isAnimationActive={false}
          className="cursor-pointer"
          onClick={(_, i) => choose({ title: `${data[i]!.name} points`, who: data[i]!.who })}
        />
      </BarChart>
    </Chart>
  );
}

export function Mass({
  view,
  unit,
  choose,
}: {
  view: ClassView;
  unit: MassUnit | undefined;
  choose: (c: Chosen) => void;
}) {
  const { mass, parts } = view;
  if (!mass) return null;
  const [low, high] = [mass.wanted * (1 - mass.tolerance), mass.wanted * (1 + mass.tolerance)];
  const isIn = (m: number) => m >= low && m <= high;
  // a part in the wrong unit would make one line of all others
  const near = parts.filter((p) => p.mass !== null && p.mass < 2 * mass.wanted && p.mass > mass.wanted / 2);
  const far = parts.filter((p) => p.mass !== null && !near.includes(p));
  const data = near.map((p, i) => ({ x: p.mass!, y: (i % 5) + 1, person: p.person, id: p.submission }));
  const reach = Math.max(mass.tolerance * 3 * mass.wanted, ...data.map((d) => Math.abs(d.x - mass.wanted) * 1.1));
  return (
    <div>
      <Chart title={`Mass against ${massText(mass.wanted, unit)} and its band`}>
        <ScatterChart margin={{ left: 8, right: 16, top: 8 }}>
          <CartesianGrid horizontal={false} stroke={GRID} />
          <XAxis
            type="number"
            dataKey="x"
            domain={[mass.wanted - reach, mass.wanted + reach]}
            tick={AXIS}
            tickFormatter={(v: number) => massText(v, unit)}
            ticks={roundTicks(mass.wanted - reach, mass.wanted + reach)}
            minTickGap={12}
          />
          <YAxis type="number" dataKey="y" hide domain={[0, 6]} />
          <ReferenceArea
            x1={low}
            x2={high}
            fill="var(--color-success)"
            fillOpacity={0.18}
            stroke="var(--color-success)"
          />
          <ReferenceLine x={mass.wanted} stroke="var(--color-success)" strokeDasharray="5 3" />
          {/* the band at both its ends, beside it */}
          <ReferenceLine x={low} stroke="none" label={<BandEnd text={massText(low, unit)} side={-1} />} />
          <ReferenceLine x={high} stroke="none" label={<BandEnd text={massText(high, unit)} side={1} />} />
          <Tooltip
            {...TIP}
            content={({ payload }) => {
              const d = payload?.[0]?.payload as (typeof data)[number] | undefined;
              return d ? (
                <p className="border border-base-300 bg-base-100 px-2 py-1 text-xs">
                  {d.person}: {massText(d.x, unit)}
                </p>
              ) : null;
            }}
          />
          <Scatter
            data={data}
            isAnimationActive={false}
            className="cursor-pointer"
            shape={(props: unknown) => <Mark {...(props as MarkProps)} isIn={isIn} />}
            onClick={(d) => {
              const { person, id } = d as unknown as (typeof data)[number];
              choose({ title: `Mass of ${person}'s part`, who: [id] });
            }}
          />
        </ScatterChart>
      </Chart>
      {far.length > 0 && (
        <button
          className="cursor-pointer text-xs text-accent hover:underline"
          onClick={() => choose({ title: "Mass far off", who: far.map((p) => p.submission) })}
        >
          {far.length} far outside this scale
        </button>
      )}
    </div>
  );
}

function BandEnd({ viewBox, text, side }: { viewBox?: { x?: number; y?: number }; text: string; side: 1 | -1 }) {
  return (
    <text
      x={(viewBox?.x ?? 0) + 5 * side}
      y={(viewBox?.y ?? 0) + 12}
      textAnchor={side < 0 ? "end" : "start"}
      fontSize={12}
      fill="var(--color-success)"
    >
      {text}
    </text>
  );
}

interface MarkProps {
  readonly cx?: number;
  readonly cy?: number;
  readonly payload?: { readonly x: number };
}
/** Inside its band a filled dot, outside a cross: told by form as well. */
function Mark({ cx = 0, cy = 0, payload, isIn }: MarkProps & { isIn: (m: number) => boolean }) {
  if (payload && isIn(payload.x)) return <circle cx={cx} cy={cy} r={4.5} fill="var(--color-success)" />;
  return <path d={`M${cx - 4} ${cy - 4}l8 8m0 -8l-8 8`} stroke="var(--color-accent)" strokeWidth={2.2} fill="none" />;
}

/** So long a title on an axis. */
const MOST_LETTERS = 38;

export function MissedBars({
  title,
  list,
  all,
  choose,
  none,
}: {
  title: string;
  list: readonly Missed[];
  all: number;
  choose: (c: Chosen) => void;
  none?: string;
}) {
  const data = list.map((m) => ({
    name: m.title.length > MOST_LETTERS ? `${m.title.slice(0, MOST_LETTERS - 1)}…` : m.title,
    count: m.who.length,
  }));
  if (!list.length)
    return (
      <section>
        <h3 className="font-semibold">{title}</h3>
        <p className="quiet">{none}</p>
      </section>
    );
  return (
    <Chart title={title} height={Math.max(120, 34 + 26 * data.length)}>
      <BarChart data={data} layout="vertical" margin={{ left: 4, right: 16 }}>
        <CartesianGrid horizontal={false} stroke={GRID} />
        <XAxis type="number" ticks={countTicks(all)} domain={[0, countTicks(all).at(-1)!]} tick={AXIS} />
        <YAxis type="category" dataKey="name" width={230} tick={AXIS} interval={0} />
        <Tooltip {...TIP} formatter={(v) => [`${String(v)} of ${all}`, "submissions"]} />
        <Bar
          dataKey="count"
          isAnimationActive={false}
          className="cursor-pointer"
          onClick={(_, i) => choose({ title: list[i]!.title, who: list[i]!.who })}
        >
          {data.map((d, i) => (
            <Cell key={i} fill={d.count * 2 >= all ? "var(--color-accent)" : "var(--color-primary)"} />
          ))}
        </Bar>
      </BarChart>
    </Chart>
  );
}

export function Counts({
  title,
  of,
  parts,
  choose,
  unit,
}: {
  title: string;
  of: (p: ClassPart) => number | null;
  parts: readonly ClassPart[];
  choose: (c: Chosen) => void;
  unit: string;
}) {
  const known = parts.flatMap((p) => {
    const value = of(p);
    return value === null ? [] : [{ value, id: p.submission }];
  });
  if (!known.length)
    return (
      <section>
        <h3 className="font-semibold">{title}</h3>
        <p className="quiet">Not known for these submissions.</p>
      </section>
    );
  const values = [...new Set(known.map((k) => k.value))].sort((a, b) => a - b);
  const data = values.map((v) => {
    const who = known.filter((k) => k.value === v).map((k) => k.id);
    return { name: unit ? `from ${v}${unit}` : String(v), count: who.length, who };
  });
  const ticks = countTicks(Math.max(...data.map((d) => d.count)));
  return (
    <Chart title={title} height={150}>
      <BarChart data={data} margin={{ left: -20, right: 8 }}>
        <CartesianGrid vertical={false} stroke={GRID} />
        <XAxis dataKey="name" tick={AXIS} interval="preserveStartEnd" minTickGap={8} />
        <YAxis ticks={ticks} interval={0} domain={[0, ticks.at(-1)!]} tick={AXIS} />
        <Tooltip {...TIP} formatter={(v) => [String(v), "submissions"]} />
        <Bar
          dataKey="count"
          fill="var(--color-primary)"
          maxBarSize={60}
          isAnimationActive={false}
          className="cursor-pointer"
          onClick={(_, i) => choose({ title: `${title}: ${data[i]!.name}`, who: data[i]!.who })}
        />
      </BarChart>
    </Chart>
  );
}
