import Link from "next/link";
import { spanText } from "@/core/grade/late";
import type { AlikePair, AlikePart, SameWorkView } from "@/server/marking/same-work";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { HandoutTabs } from "./handout-tabs";

/** Pairs of parts that were made more alike than by themselves: evidence side by side, and no verdict. */
export function SameWorkPage({
  person,
  handout,
  found,
}: {
  person: { name: string };
  handout: { id: string; number: string; title: string; course: string };
  found: SameWorkView;
}) {
  const { pairs, compared } = found;
  return (
    <PageFrame person={person}>
      <h1 className="text-xl font-semibold">
        {handout.number} {handout.title}
      </h1>
      <p className="quiet mt-1">{handout.course}</p>
      <HandoutTabs handout={handout.id} here="/same-work" mayTeach />
      <p className="mt-4 max-w-3xl">
        {compared < 2
          ? "Parts are compared once two students have handed in."
          : `${compared} parts compared by how they were made: where numbers and loose things were put by hand, what ` +
            "was made and taken away again, what things are called, in which order. Their shape plays no part."}
      </p>
      {compared >= 2 && !pairs.length && <p className="mt-3">No two were made more alike than by themselves.</p>}
      {pairs.length > 0 && (
        <p className="quiet mt-1 max-w-3xl">
          What stands here is a reason to ask, not an answer: two may have sat side by side, or begun from one file.
        </p>
      )}
      <ul className="mt-4 space-y-6">
        {pairs.map((p) => (
          <Pair key={p.parts.map((x) => x.submission).join()} pair={p} />
        ))}
      </ul>
    </PageFrame>
  );
}

function Pair({ pair }: { pair: AlikePair }) {
  const [a, b] = pair.parts;
  const apart = Math.abs(Date.parse(a.handedInAt) - Date.parse(b.handedInAt)) / 1000;
  return (
    <li className="rounded-box border border-base-300 p-4" data-pair>
      <h2 className="font-semibold">
        {a.person} and {b.person}
      </h2>
      <div className="mt-3 flex flex-wrap gap-8">
        <Part part={a} />
        <Part part={b} />
        <ul className="min-w-72 flex-1 space-y-1">
          {pair.likenesses.map((l) => (
            <li key={l.kind}>{l.sentence}</li>
          ))}
          <li className="quiet">
            Handed in {apart < 60 ? "within a minute of each other" : `${spanText(apart)} apart`}.
          </li>
        </ul>
      </div>
    </li>
  );
}

function Part({ part }: { part: AlikePart }) {
  const work = [
    part.minutes !== null && `${part.minutes} min at work`,
    part.saves !== null && `saved ${part.saves} ${part.saves === 1 ? "time" : "times"}`,
  ].filter(Boolean);
  return (
    <div className="w-52">
      <div className="flex h-36 items-center justify-center rounded-box border border-base-300 bg-base-200">
        {part.picture ? (
          <img src={part.picture} alt={`Part of ${part.person}`} className="max-h-full max-w-full" />
        ) : (
          <span className="quiet text-sm">no picture</span>
        )}
      </div>
      <Link className="mt-1 block font-medium hover:underline" href={`/submissions/${part.submission}`}>
        {part.person}
      </Link>
      <p className="quiet text-sm">
        handed in <LocalTime iso={part.handedInAt} />
      </p>
      <p className="quiet text-sm">{work.join(", ")}</p>
    </div>
  );
}
