"use client";

import { useCallback, useEffect, useState } from "react";
import { compareParts, type StepDifference } from "@/core/part/compare";
import { withStepsCalled } from "@/core/naming/words";
import type { PartDocument } from "@/core/part/document";
import { massText, volumeText, type MassUnit } from "@/core/units/amounts";
import { bytesText, isNearlyFull } from "../../parts/bytes";
import { LocalTime } from "../../parts/local-time";
import { Card } from "../panel/card";
import type { BenchStore } from "../store";
import { shownNow } from "./shown";

interface VersionRow {
  readonly id: string;
  readonly variant: string;
  readonly kind: "spell" | "named" | "handed-in" | "parted" | "before";
  readonly name: string | null;
  readonly picture: string | null;
  readonly numbers: { readonly steps: number; readonly volume?: number; readonly mass?: number } | null;
  readonly made_at: string;
}
interface Told {
  readonly versions: readonly VersionRow[];
  readonly variants: readonly { readonly name: string; readonly stands: boolean }[];
  readonly counts: Counts;
  readonly most: Counts;
}
/** Versions that have a name, and those that another window has parted from. */
interface Counts {
  readonly named: number;
  readonly parted: number;
  /** What was named or handed in of all parts of this person. */
  readonly bytes: number;
}
type Change = { do: "name" | "branch" | "switch"; name: string } | { do: "restore" | "unname"; of: string };

const AWAY = "No connection. The history is on the server; try again when it is back.";

/** What a student has made on this handout: versions to go back to, and ways kept side by side. */
export function HistoryCard({ store, url }: { store: BenchStore; url: string }) {
  const [told, setTold] = useState<Told>();
  const [trouble, setTrouble] = useState<string>();
  const [name, setName] = useState("");
  const [difference, setDifference] = useState<{ of: VersionRow; list: StepDifference[]; document: PartDocument }>();
  const isReadOnly = store((s) => s.saved.kind === "parted");
  const load = useCallback(async () => {
    try {
      const r = await fetch(url, { cache: "no-store" });
      const answer = (await r.json()) as Told & { sentence?: string };
      if (r.ok) setTold(answer);
      else setTrouble(answer.sentence);
    } catch {
      setTrouble(AWAY);
    }
  }, [url]);
  useEffect(() => void load(), [load]);
  const change = async (c: Change) => {
    setTrouble(undefined);
    const { saver, settled, goOn } = store.getState();
    // only what the server has can stand in its history
    await Promise.race([settled(), new Promise((r) => setTimeout(r, 5_000))]);
    try {
      const shown = c.do === "name" ? { shown: shownNow(store) } : {};
      const r = await fetch(url, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({
          ...c,
          ...shown,
          id: crypto.randomUUID(),
          version: saver.version,
          window: saver.window,
          owner: store.getState().owner,
        }),
      });
      const answer = (await r.json()) as {
        version: number;
        document: PartDocument;
        sentence?: string;
      };
      if (!r.ok) return setTrouble(answer.sentence ?? "This could not be done.");
      setName("");
      setDifference(undefined);
      if (c.do !== "name" && c.do !== "unname") goOn(answer.document, answer.version);
      await load();
    } catch {
      setTrouble(AWAY);
    }
  };
  const compare = async (row: VersionRow) => {
    setTrouble(undefined);
    try {
      const r = await fetch(`${url}/${row.id}`, { cache: "no-store" });
      const answer = (await r.json()) as { document: PartDocument; sentence?: string };
      if (!r.ok) return setTrouble(answer.sentence);
      const list = compareParts(answer.document, store.getState().history.present);
      setDifference({ of: row, list, document: answer.document });
    } catch {
      setTrouble(AWAY);
    }
  };
  return (
    <Card store={store} title="History" wide>
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim()) void change({ do: "name", name: name.trim() });
        }}
      >
        <input
          aria-label="Name of the version or variant"
          className="input input-sm min-w-40 flex-1"
          placeholder="a name, such as: before the shell"
          maxLength={60}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <button className="btn btn-sm" disabled={!name.trim() || isReadOnly}>
          Name this version
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={!name.trim() || isReadOnly}
          title="What stands stays as it is under its own name; you go on with a copy"
          onClick={() => void change({ do: "branch", name: name.trim() })}
        >
          Branch off a variant
        </button>
      </form>
      {trouble && (
        <p role="alert" className="mt-2 text-error">
          {trouble}
        </p>
      )}
      {told && nearEnd(told).map((s) => <p key={s} className="quiet mt-2" children={s} />)}
      {told && told.variants.length > 1 && (
        <div className="mt-3 flex flex-wrap items-center gap-1.5" role="group" aria-label="Variants">
          <span className="quiet">Variants</span>
          {told.variants.map((v) => (
            <button
              key={v.name}
              className={`btn btn-xs ${v.stands ? "btn-primary" : ""}`}
              aria-pressed={v.stands}
              disabled={v.stands || isReadOnly}
              onClick={() => void change({ do: "switch", name: v.name })}
            >
              {v.name}
            </button>
          ))}
        </div>
      )}
      {!told && !trouble && <p className="quiet mt-3">Looking …</p>}
      {told && !told.versions.length && (
        <p className="quiet mt-3">
          Nothing yet. Versions come by themselves: at each hand-in and after each spell of work. Name one to find it
          again.
        </p>
      )}
      <ol className="mt-3 divide-y divide-base-300 border-y border-base-300" aria-label="Versions">
        {told?.versions.map((v) => (
          <li key={v.id} className="py-1.5">
            <div className="flex items-center gap-3">
              <Look version={v} />
              <div className="min-w-0 flex-1">
                <p className="truncate font-medium">{v.name ?? "Work until then"}</p>
                <p className="quiet text-xs">
                  <LocalTime iso={v.made_at} />
                  {v.numbers &&
                    ` · ${numbersText(v.numbers, store.getState().history.present.units, store.getState().massUnit)}`}
                  {told.variants.length > 1 && ` · ${v.variant}`}
                </p>
              </div>
              {v.kind === "named" && (
                <button
                  className="btn btn-ghost btn-xs"
                  title={`Take the name “${v.name}” away; the version stays as long as any other`}
                  disabled={isReadOnly}
                  onClick={() => void change({ do: "unname", of: v.id })}
                >
                  Unname
                </button>
              )}
              <button className="btn btn-xs" onClick={() => void compare(v)}>
                Compare
              </button>
              <button
                className="btn btn-xs"
                disabled={isReadOnly}
                onClick={() => void change({ do: "restore", of: v.id })}
              >
                Restore
              </button>
            </div>
            {difference?.of.id === v.id && <Differences list={difference.list} document={difference.document} />}
          </li>
        ))}
      </ol>
    </Card>
  );
}

const nearEnd = ({ counts, most }: Told): string[] => [
  ...(isNearlyFull(counts.named, most.named)
    ? [`${counts.named} of ${most.named} named versions. Take names away that nobody needs.`]
    : []),
  ...(isNearlyFull(counts.parted, most.parted)
    ? [`${counts.parted} versions were put aside for another window; the last ${most.parted} are kept.`]
    : []),
  ...(isNearlyFull(counts.bytes, most.bytes)
    ? [`Your named versions of all parts fill ${bytesText(counts.bytes)} of ${bytesText(most.bytes)}. Take names away.`]
    : []),
];

function Look({ version: v }: { version: VersionRow }) {
  if (!v.picture)
    return <span className="h-12 w-18 shrink-0 rounded-field border border-base-300 bg-base-200" aria-hidden />;
  return (
    <img src={v.picture} alt="" className="h-12 w-18 shrink-0 rounded-field border border-base-300 object-cover" />
  );
}

const numbersText = (
  n: NonNullable<VersionRow["numbers"]>,
  unit: PartDocument["units"],
  massUnit: MassUnit | undefined,
): string =>
  [
    `${n.steps} step${n.steps === 1 ? "" : "s"}`,
    ...(n.volume === undefined ? [] : [volumeText(n.volume, unit)]),
    ...(n.mass === undefined ? [] : [massText(n.mass, massUnit)]),
  ].join(" · ");

/** The version against what stands on the Bench. */
function Differences({ list, document }: { list: readonly StepDifference[]; document: PartDocument }) {
  if (!list.length) return <p className="quiet mt-1">The same, step by step, as what stands on the Bench.</p>;
  const words = { "only-first": "only then", "only-second": "only now", changed: "changed" };
  return (
    <table className="mt-1 w-full" aria-label="Differences">
      <thead>
        <tr className="quiet text-left">
          <th className="font-normal">What</th>
          <th className="text-right font-normal">then</th>
          <th className="text-right font-normal">now</th>
        </tr>
      </thead>
      <tbody>
        {list.map((difference) => [
          <tr key={difference.called + difference.kind}>
            <td colSpan={3} className="font-medium">
              {difference.called}: {words[difference.kind]}
              {difference.kind === "changed" && difference.otherwise && !difference.numbers.length
                ? ", drawn or picked otherwise"
                : ""}
            </td>
          </tr>,
          ...difference.numbers.map((n) => (
            <tr key={difference.called + n.name}>
              <td className="pl-3">{withStepsCalled(n.name, document.steps)}</td>
              <td className="figures text-right">{n.first}</td>
              <td className="figures text-right">{n.second}</td>
            </tr>
          )),
        ])}
      </tbody>
    </table>
  );
}
