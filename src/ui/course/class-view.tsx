"use client";

import Link from "next/link";
import { useState } from "react";
import type { MassUnit } from "@/core/units/amounts";
import { begun } from "@/core/naming/words";
import type { ClassPart, ClassView } from "@/server/marking/class-view";
import { Counts, Mass, MissedBars, Points, type Chosen } from "./class-charts";
import { CardWall } from "../parts/card-wall";
import { PageFrame } from "../parts/page-frame";
import { HandoutTabs } from "./handout-tabs";

/** How the class did: each figure opens the submissions behind it. */
export function ClassViewPage({
  person,
  handout,
  view,
  massUnit,
  mayTeach,
}: {
  person: { name: string };
  handout: { id: string; number: string; title: string; course: string };
  view: ClassView;
  massUnit: MassUnit | undefined;
  mayTeach: boolean;
}) {
  const [chosen, setChosen] = useState<Chosen>();
  const { parts } = view;
  return (
    <PageFrame person={person}>
      <h1 className="text-xl font-semibold">
        {handout.number} {handout.title}
      </h1>
      <p className="quiet mt-1">
        {handout.course} · {parts.length} checked
      </p>
      <HandoutTabs handout={handout.id} here="/class" mayTeach={mayTeach} />
      {!parts.length && <p className="mt-6">Nothing has been checked yet. Charts appear with the first submission.</p>}
      {parts.length > 0 && (
        <>
          <Faults view={view} choose={setChosen} />
          <div className="mt-6 grid grid-cols-1 gap-x-10 gap-y-8 lg:grid-cols-2">
            <Points view={view} choose={setChosen} />
            <Mass view={view} unit={massUnit} choose={setChosen} />
            <MissedBars
              title="Lines of the rubric, by how many lost points"
              list={view.lines}
              all={parts.length}
              choose={setChosen}
            />
            <MissedBars
              title="Printed sizes, by how many have another"
              list={view.sizes.slice(0, 12)}
              all={parts.length}
              choose={setChosen}
              none="Every printed size is right on every part."
            />
            <Counts title="Tries" of={(p) => p.attempts} parts={parts} choose={setChosen} unit="" />
            <Counts
              title="Time at work"
              of={(p) => (p.minutes === null ? null : Math.floor(p.minutes / 15) * 15)}
              parts={parts}
              choose={setChosen}
              unit=" min"
            />
          </div>
          <Wall parts={parts} of={view.of} />
          <Behind chosen={chosen} parts={parts} of={view.of} close={() => setChosen(undefined)} />
        </>
      )}
    </PageFrame>
  );
}

/** The commonest faults in words, for the next lesson. */
function Faults({ view, choose }: { view: ClassView; choose: (c: Chosen) => void }) {
  return (
    <section className="mt-5" aria-label="For the next lesson">
      <h2 className="font-semibold">For the next lesson</h2>
      {!view.faults.length && <p className="quiet">No fault is shared: every part is as drawn.</p>}
      <ol className="mt-1 list-decimal pl-5">
        {view.faults.map((f) => (
          <li key={f.text}>
            {begun(f.text)}:{" "}
            <button
              className="cursor-pointer text-accent hover:underline"
              onClick={() => choose({ title: begun(f.text), who: f.who })}
            >
              {f.who.length} of {view.parts.length}
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Every part of the class, alike ones together and the worst first, so that the odd one is seen at a glance. */
function Wall({ parts, of }: { parts: readonly ClassPart[]; of: number }) {
  const sorted = [...parts].sort(
    (a, b) => Number(!a.wrong) - Number(!b.wrong) || a.wrong.localeCompare(b.wrong) || a.points - b.points,
  );
  return (
    <section className="mt-8" aria-label="The class's parts">
      <h2 className="font-semibold">The class’s parts</h2>
      <CardWall
        label="Parts"
        cards={sorted.map((p) => ({
          id: p.submission,
          href: `/submissions/${p.submission}`,
          title: p.person,
          picture: p.picture,
          alt: `The part of ${p.person}`,
          children: (
            <>
              <span className="figures">
                {p.points} / {of}
              </span>{" "}
              <span className={p.wrong ? "text-accent" : "quiet"}>{p.wrong || "as drawn"}</span>
            </>
          ),
        }))}
      />
    </section>
  );
}

/** The submissions behind a figure. */
function Behind({
  chosen,
  parts,
  of,
  close,
}: {
  chosen: Chosen | undefined;
  parts: readonly ClassPart[];
  of: number;
  close: () => void;
}) {
  if (!chosen)
    return <p className="quiet mt-6 text-sm">Click a bar or a mark: the submissions behind it are listed here.</p>;
  const shown = parts.filter((p) => chosen.who.includes(p.submission));
  return (
    <section className="mt-6 border-t border-base-300 pt-3" aria-label="Submissions behind it">
      <h2 className="flex items-baseline gap-3 font-semibold first-letter:uppercase">
        {chosen.title}
        <button className="btn btn-ghost btn-xs" onClick={close}>
          Close
        </button>
      </h2>
      {!shown.length && <p className="quiet">Nobody.</p>}
      <ul className="mt-1 flex flex-wrap gap-x-8 gap-y-1">
        {shown.map((part) => (
          <li key={part.submission}>
            <Link className="text-accent hover:underline" href={`/submissions/${part.submission}`}>
              {part.person}
            </Link>{" "}
            <span className="figures">
              {part.points} / {of}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
