"use client";

import { useEffect, useRef, useState } from "react";
import type { MarkedLine } from "@/core/grade/mark";
import type { Comment } from "@/core/grade/decision";
import { spanText } from "@/core/grade/late";
import { LocalTime } from "../parts/local-time";
import type { DeskStore, Item, Writing } from "./desk-store";
import { History } from "./history";
import { SizesTable } from "./sizes-table";
import { HandedIn, Sign } from "./standing";
import { Talk } from "./talk";
import { Words } from "./words";

/** The rubric with the program's evidence, what people say otherwise, and what is said about it. */
export function RubricPane({ store, item }: { store: DeskStore; item: Item }) {
  const { line, writing, handout } = store();
  const { desk, mark, decided } = item;
  const sizes = desk.report?.evidence.find((e) => e.check === "sizes");
  const whole = decided.comments.filter((c) => !c.line);
  return (
    <aside aria-label="Rubric" className="flex w-92 shrink-0 flex-col border-l border-base-300">
      <div className="min-h-0 flex-1 overflow-y-auto">
        <h2 className="flex items-baseline justify-between px-3.5 pb-2 pt-3">
          <span className="font-semibold">{desk.person}</span>
          <span className="quiet text-xs">
            try {desk.attempt} of {desk.attempts.length}
          </span>
        </h2>
        {mark.lines.map((l, i) => (
          <LineCard
            key={l.id}
            store={store}
            line={l}
            place={i + 1}
            isChosen={line === l.id}
            writing={writing}
            comments={decided.comments.filter((c) => c.line === l.id)}
          >
            {l.check === "sizes" && sizes?.check === "sizes" && sizes.sizes.length > 0 && (
              <details className="text-sm">
                <summary className="cursor-pointer text-accent">All {sizes.sizes.length} sizes</summary>
                <SizesTable sizes={sizes.sizes} unit={handout.exercise.units} />
              </details>
            )}
          </LineCard>
        ))}
        {mark.deductions.map((d) => (
          <div key={d.why} className="flex gap-2.5 border-t border-base-300 px-3.5 py-2" data-deduction={d.why}>
            <span className="w-4" />
            <div className="min-w-0 flex-1">
              <p className="flex justify-between font-semibold text-accent">
                {d.title} <span className="figures">−{Math.abs(d.points)}</span>
              </p>
              <p className="quiet text-sm">{d.sentence}</p>
            </div>
          </div>
        ))}
        <section className="border-t border-base-300 px-3.5 py-2.5" aria-label="Comments">
          <p className="flex items-center justify-between text-xs font-semibold">
            <span className="quiet">To {desk.person.split(" ")[0]}, about the whole</span>
            <button
              className="btn btn-xs"
              onClick={() => store.getState().set({ line: undefined, writing: { kind: "comment" } })}
            >
              Comment <kbd className="kbd kbd-xs">C</kbd>
            </button>
          </p>
          <Comments store={store} comments={whole} />
          {writing?.kind === "comment" && !writing.line && <CommentForm store={store} writing={writing} />}
        </section>
        <Talk store={store} item={item} />
        <History item={item} />
      </div>
      <footer className="border-t border-base-300 px-3.5 py-2.5">
        <p className="flex items-baseline justify-between">
          <span className="figures text-2xl" data-testid="points">
            {desk.grade ? `${mark.points} / ${mark.of}` : "– / –"}
          </span>
          <span className="quiet text-sm">
            {desk.returned ? `returned with ${desk.returned.points}` : decided.acceptedAt ? "looked at" : "open"}
          </span>
        </p>
        <p className="quiet text-xs first-letter:uppercase">
          <HandedIn state={desk} />
          {desk.checkedAt && (
            <>
              , checked <LocalTime iso={desk.checkedAt} short />
            </>
          )}
          {desk.lateSeconds > 0 &&
            mark.deductions.every((d) => d.why !== "late") &&
            ` (${spanText(desk.lateSeconds)}, no points off)`}
        </p>
      </footer>
    </aside>
  );
}

const CHOSEN = "border-l-accent bg-[var(--rust-wash)]";

function LineCard({
  store,
  line,
  place,
  isChosen,
  writing,
  comments,
  children,
}: {
  store: DeskStore;
  line: MarkedLine;
  place: number;
  isChosen: boolean;
  writing: Writing | undefined;
  comments: readonly Comment[];
  children?: React.ReactNode;
}) {
  const card = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isChosen) card.current?.scrollIntoView({ block: "nearest" });
  }, [isChosen, writing]);
  const { set } = store.getState();
  const isOverruled = line.overruled !== undefined;
  const isOpen = line.check === "hand" && !isOverruled;
  return (
    <div
      ref={card}
      data-line={line.id}
      className={`border-t border-l-3 border-t-base-300 px-3 py-2 ${isChosen ? CHOSEN : "border-l-transparent"}`}
    >
      <button
        className="flex w-full cursor-pointer gap-2 text-left"
        aria-pressed={isChosen}
        onClick={() => set({ line: isChosen ? undefined : line.id })}
      >
        <Sign verdict={line.verdict} />
        <span className="min-w-0 flex-1">
          <span className="flex justify-between gap-2">
            <span className="font-semibold">
              {place <= 9 && <kbd className="kbd kbd-xs mr-1.5">{place}</kbd>}
              {line.title}
              {line.bonus && <span className="quiet font-normal"> · bonus</span>}
              {line.must && <span className="quiet font-normal"> · must be met</span>}
            </span>
            <span className="figures whitespace-nowrap">
              {isOverruled && line.check !== "hand" && <s className="quiet mr-1.5">{line.machine}</s>}
              {isOpen ? "–" : line.points} / {line.of}
            </span>
          </span>
          <span className="quiet mt-0.5 block text-sm">{line.sentence}</span>
          {line.near !== undefined && <span className="block text-sm text-accent">Near the limit: look at it.</span>}
        </span>
      </button>
      <div className="pl-6">
        {children}
        {line.overruled && (
          <p className="mt-0.5 text-sm">
            {line.overruled.reason && <>{line.overruled.reason} </>}
            <span className="quiet">
              {line.overruled.by}, <LocalTime iso={line.overruled.at} short />
              {line.overruled.isOlder && "; it stands over the newer check"}
            </span>{" "}
            <button
              className="cursor-pointer text-accent hover:underline"
              onClick={() => store.getState().decide({ do: "withdraw", line: line.id })}
            >
              take back
            </button>
          </p>
        )}
        <Comments store={store} comments={comments} />
        {isChosen && writing?.kind === "overrule" && writing.line === line.id && (
          <OverruleForm store={store} line={line} writing={writing} />
        )}
        {isChosen && writing?.kind === "comment" && writing.line === line.id && (
          <CommentForm store={store} writing={writing} about={line.check} />
        )}
        {isChosen && !writing && (
          <p className="quiet mt-1 flex flex-wrap gap-x-2.5 gap-y-1 text-xs">
            {KEYS.map(([key, text]) => (
              <span key={key}>
                <kbd className="kbd kbd-xs">{key}</kbd> {text}
              </span>
            ))}
          </p>
        )}
      </div>
    </div>
  );
}

const KEYS = [
  ["O", "overrule"],
  ["+ −", "half a point"],
  ["F", "all"],
  ["N", "none"],
  ["C", "comment"],
] as const;

function Comments({ store, comments }: { store: DeskStore; comments: readonly Comment[] }) {
  return (
    <ul className="text-sm">
      {comments.map((c) => (
        <li key={c.id} className="mt-1 flex items-start gap-2">
          <span className="min-w-0 flex-1 whitespace-pre-wrap border-l-2 border-primary pl-2">
            {c.pin && <span className="quiet">{c.pin.on === "part" ? "On the part: " : "On the Sheet: "}</span>}
            {c.text}
          </span>
          <button
            className="cursor-pointer text-xs text-accent hover:underline"
            aria-label={`Take back: ${c.text.slice(0, 40)}`}
            onClick={() => store.getState().decide({ do: "uncomment", comment: c.id })}
          >
            take back
          </button>
        </li>
      ))}
    </ul>
  );
}

function CommentForm({
  store,
  writing,
  about = "",
}: {
  store: DeskStore;
  writing: Extract<Writing, { kind: "comment" }>;
  about?: string | undefined;
}) {
  const { set, decide } = store.getState();
  const send = (text: string) => {
    decide({
      do: "comment",
      comment: crypto.randomUUID(),
      text,
      ...(writing.line && { line: writing.line }),
      ...(writing.pin && { pin: writing.pin }),
    });
    set({ writing: undefined });
  };
  const label = writing.pin ? "Comment on this place" : "Comment";
  return <Words store={store} about={about} label={label} send={send} cancel={() => set({ writing: undefined })} />;
}

function OverruleForm({
  store,
  line,
  writing,
}: {
  store: DeskStore;
  line: MarkedLine;
  writing: Extract<Writing, { kind: "overrule" }>;
}) {
  const { set, decide } = store.getState();
  const [points, setPoints] = useState(String(writing.points));
  useEffect(() => setPoints(String(writing.points)), [writing.points]);
  const value = Number(points.replace(",", "."));
  const isGood = points.trim() !== "" && value >= 0 && value <= line.of;
  const isHand = line.check === "hand";
  const send = (reason: string) => {
    if (!isGood) return;
    decide({ do: "overrule", line: line.id, points: value, reason });
    set({ writing: undefined });
  };
  return (
    <div className="mt-1.5">
      <label className="flex items-center gap-2 text-sm">
        Points
        <input
          className={`input input-xs figures w-16 text-right ${isGood ? "" : "input-error"}`}
          inputMode="decimal"
          value={points}
          onChange={(e) => setPoints(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Escape") set({ writing: undefined });
            if (e.key === "Enter" && isHand) send("");
          }}
          aria-label={`Points for ${line.title}`}
          autoFocus={isHand}
          onFocus={(e) => e.target.select()}
        />
        <span className="figures">/ {line.of}</span>
        {!isGood && <span className="text-xs text-error">0 to {line.of}</span>}
      </label>
      <Words
        store={store}
        about={line.check ?? ""}
        label={isHand ? "Remark (may stay empty)" : "Why: the student reads it"}
        send={send}
        cancel={() => set({ writing: undefined })}
        mayBeEmpty={isHand}
        isFirst={!isHand}
      />
    </div>
  );
}
