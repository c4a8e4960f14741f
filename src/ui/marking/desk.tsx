"use client";

import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import type { Pin } from "@/core/grade/decision";
import type { DeskSubmission } from "@/server/marking/desk";
import type { QueueRow } from "@/server/marking/desk-queue";
import type { Remark } from "@/server/marking/marking";
import { Camera } from "../bench/view/camera";
import { LOOK, useNews } from "../parts/follow";
import { fetchQueue, type DeskHandout } from "./desk-data";
import { useDeskKeys } from "./desk-keys";
import { deskStore, VIEWS, type DeskStore, type Item, type View } from "./desk-store";
import type { Held } from "./held";
import { Queue } from "./queue";
import { ReturnMenu } from "./return-menu";
import { RubricPane } from "./rubric-pane";
import { Progress } from "./standing";
import { ModelView, type ModelLook } from "./views/model-view";
import { NumbersView } from "./views/numbers-view";
import { SheetView } from "./views/sheet-view";
import { printedOn, StepsView } from "./views/steps-view";
import { TriesView } from "./views/tries-view";

/** The queue at the left, the part against the reference in the middle, the rubric with its evidence at the right. */
export function MarkingDesk(start: {
  me: { id: string; name: string };
  handout: DeskHandout;
  queue: readonly QueueRow[];
  first: DeskSubmission;
  remarks: readonly Remark[];
  again: (form: FormData) => Promise<void>;
  /** Takes a part over as the reference of a new exercise; none for who only marks. */
  makeExercise?: ((form: FormData) => Promise<void>) | undefined;
}) {
  const [store] = useState(() => deskStore(start));
  const at = store((s) => s.at);
  const item = store((s) => s.items[s.at]);
  const note = store((s) => s.note);
  const sending = store((s) => s.sending);
  const held = store((s) => s.held);
  const [isHelp, setHelp] = useState(false);
  useDeskKeys(store, () => setHelp((h) => !h));
  useEffect(() => {
    const { go, outbox } = store.getState();
    go(store.getState().at);
    outbox.hurry();
    const ask = (e: BeforeUnloadEvent) => outbox.count > 0 && e.preventDefault();
    const flush = () => store.getState().holding.flush();
    window.addEventListener("pagehide", flush);
    const hurry = () => outbox.hurry();
    window.addEventListener("beforeunload", ask);
    window.addEventListener("online", hurry);
    return () => {
      flush();
      window.removeEventListener("pagehide", flush);
      window.removeEventListener("beforeunload", ask);
      window.removeEventListener("online", hurry);
    };
  }, [store]);
  useQueueNews(store, start.handout.id);
  const isBusy = item?.desk.state === "queued" || item?.desk.state === "checking";
  return (
    <div className="flex h-screen flex-col overflow-hidden" data-desk={at}>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-3.5 py-1.5">
        <Link href={`/handouts/${start.handout.id}`} className="text-sm text-accent hover:underline">
          Back
        </Link>
        <h1 className="font-semibold">
          {start.handout.number} {start.handout.title}
        </h1>
        <span className="quiet text-sm">{start.handout.course}</span>
        <span role="status" className={`text-sm ${sending.kind === "waiting" ? "text-error" : "quiet"}`}>
          {sending.kind === "waiting" && `${sending.count} not sent: ${sending.sentence}`}
          {sending.kind === "sending" && "Being sent …"}
          {sending.kind === "kept" && !held && note}
        </span>
        {held && <TakeBack store={store} held={held} />}
        {sending.kind === "waiting" && (
          <button className="btn btn-xs" onClick={() => store.getState().outbox.hurry()}>
            Try now
          </button>
        )}
        <span className="quiet ml-auto hidden items-center gap-1 text-sm lg:flex">
          <kbd className="kbd kbd-xs">↓</kbd> next <kbd className="kbd kbd-xs">↑</kbd> back
          <kbd className="kbd kbd-xs">← →</kbd> view
          <button className="btn btn-ghost btn-xs" onClick={() => setHelp(!isHelp)} aria-expanded={isHelp}>
            <kbd className="kbd kbd-xs">?</kbd> all keys
          </button>
        </span>
        <Acts store={store} item={item} again={start.again} />
      </header>
      {isHelp && <KeyHelp close={() => setHelp(false)} />}
      <div className="flex min-h-0 flex-1">
        <Queue store={store} />
        <Middle store={store} item={item} isBusy={isBusy} makeExercise={start.makeExercise} />
        {item ? (
          <RubricPane store={store} item={item} />
        ) : (
          <aside className="w-92 shrink-0 border-l border-base-300" aria-label="Rubric" />
        )}
      </div>
    </div>
  );
}

/** What goes out in a moment, and how long it can still be taken back. */
function TakeBack({ store, held }: { store: DeskStore; held: Held }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, []);
  return (
    <span role="status" className="flex items-center gap-2 text-sm">
      {held.text} in {Math.max(0, Math.ceil((held.until - now) / 1000))} s
      <button className="btn btn-xs" onClick={() => store.getState().holding.takeBack()}>
        Take it back <kbd className="kbd kbd-xs">Z</kbd>
      </button>
    </span>
  );
}

/** Fetches the queue anew when something has changed that was not done here. */
function useQueueNews(store: DeskStore, handout: string): void {
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(waiting.current), []);
  useNews(`class:${handout}`, (topic) => {
    if (topic === LOOK && store.getState().sending.kind === "sending") return;
    // what is decided here is news too: many at once are one look
    clearTimeout(waiting.current);
    waiting.current = setTimeout(() => lookAtQueue(store, handout), REST_MS);
  });
}

/** The queue is fetched at most so often. */
const REST_MS = 900;

function lookAtQueue(store: DeskStore, handout: string): void {
  fetchQueue(handout)
    .then((queue) => !store.getState().outbox.count && store.getState().take(queue))
    .catch(() => {});
}

const TITLES: Record<View, string> = {
  difference: "Difference",
  reference: "Reference",
  submission: "Submission",
  edges: "Edges",
  section: "Section",
  deviation: "Deviation",
  sheet: "Sheet",
  steps: "Steps",
  numbers: "Numbers",
  tries: "Tries",
};
const MODEL: ReadonlySet<View> = new Set(["difference", "reference", "submission", "edges", "section", "deviation"]);

function Middle({
  store,
  item,
  isBusy,
  makeExercise,
}: {
  store: DeskStore;
  item: Item | undefined;
  isBusy: boolean;
  makeExercise: ((form: FormData) => Promise<void>) | undefined;
}) {
  const { view, picture, trouble, handout, at, isPinning, set } = store();
  const [camera] = useState(() => new Camera());
  const desk = item?.desk;
  const meshes = picture?.of === at ? picture.meshes : undefined;
  const evidence = desk?.report?.evidence;
  const shape = evidence?.find((e) => e.check === "shape");
  const sizes = evidence?.find((e) => e.check === "sizes");
  const comments = item?.decided.comments ?? [];
  const pins = comments.flatMap((c) =>
    c.pin?.on === "part" ? [{ at: c.pin.at, word: "pin", text: short(c.text) }] : [],
  );
  const pinAt = (pin: Pin) => set({ isPinning: false, line: undefined, writing: { kind: "comment", pin } });
  return (
    <section className="flex min-w-0 flex-1 flex-col" data-shown={desk && (meshes || !desk.checkedAt) ? at : ""}>
      <div className="flex items-start justify-between gap-2 px-3 py-1.5">
        <div className="flex flex-wrap gap-1" role="tablist" aria-label="Views">
          {VIEWS.map((v) => (
            <button
              key={v}
              role="tab"
              className={`btn btn-xs ${view === v ? "border-accent bg-[var(--rust-wash)]" : ""}`}
              aria-selected={view === v}
              onClick={() => set({ view: v })}
            >
              {TITLES[v]}
            </button>
          ))}
        </div>
        <button
          className={`btn btn-xs ${isPinning ? "border-accent bg-[var(--rust-wash)]" : ""}`}
          aria-pressed={isPinning}
          disabled={view !== "sheet" && !MODEL.has(view)}
          onClick={() => set({ isPinning: !isPinning })}
        >
          Pin a comment <kbd className="kbd kbd-xs">P</kbd>
        </button>
      </div>
      {desk?.state === "failed" && (
        <p role="alert" className="alert alert-warning mx-3 mb-2 py-2">
          {desk.trouble}
        </p>
      )}
      {desk?.own && (
        <p className="px-3 pb-1 text-sm">
          <span className="quiet">Own numbers</span> <span className="figures">{desk.own.text}</span>
          {desk.own.builtFrom && (
            <b className="ml-3 text-accent">Built to the numbers of {desk.own.builtFrom}’s Sheet</b>
          )}
        </p>
      )}
      {isBusy && desk && (
        <div className="px-6">
          <Progress state={desk} />
        </div>
      )}
      <div className="min-h-0 flex-1" role="tabpanel" aria-label={TITLES[view]}>
        {/* the model stays mounted, so that stepping on only changes what is drawn */}
        <div className={`h-full ${MODEL.has(view) ? "" : "hidden"}`}>
          <ModelView
            camera={camera}
            meshes={meshes}
            look={(MODEL.has(view) ? view : "difference") as ModelLook}
            shape={shape?.check === "shape" ? shape : undefined}
            units={handout.exercise.units}
            projection={handout.exercise.sheet.projection}
            trouble={desk && !desk.checkedAt && !isBusy ? "There is no picture: it could not be checked." : trouble}
            pins={pins}
            onPlace={isPinning ? (p) => pinAt({ on: "part", at: [...p] }) : undefined}
          />
        </div>
        {view === "sheet" && (
          <SheetView
            svg={(desk?.own ? desk.own.sheet : handout.sheet)?.svg}
            sizes={sizes?.check === "sizes" ? sizes : undefined}
            pins={comments}
            onPlace={isPinning ? (p) => pinAt({ on: "sheet", at: p }) : undefined}
          />
        )}
        {view === "steps" &&
          (desk?.document.format === "caliper-part" ? (
            <>
              {makeExercise && (
                <form action={makeExercise} className="px-4 pt-2 text-right">
                  <input type="hidden" name="submission" value={desk.id} />
                  <button className="btn btn-xs">Make an exercise of this part</button>
                </form>
              )}
              <StepsView key={desk.id} document={desk.document} printed={printedOn(desk.own?.sheet ?? handout.sheet)} />
            </>
          ) : (
            <p className="quiet p-8">
              It came as {desk?.document.format === "caliper-file" ? `the file ${desk.document.name}` : "figures alone"}
              : there are no steps.
            </p>
          ))}
        {view === "numbers" && desk && <NumbersView report={desk.report} exercise={handout.exercise} />}
        {view === "tries" && desk && <TriesView key={desk.id} desk={desk} meshes={meshes} />}
      </div>
    </section>
  );
}

const short = (text: string) => (text.length > 34 ? `${text.slice(0, 32)} …` : text);

/** What can be done with the submission that is shown. */
function Acts({
  store,
  item,
  again,
}: {
  store: DeskStore;
  item: Item | undefined;
  again: (form: FormData) => Promise<void>;
}) {
  if (!item) return null;
  const { desk, decided } = item;
  const busy = desk.state === "queued" || desk.state === "checking";
  const isAccepted = decided.acceptedAt !== undefined;
  return (
    <div className="flex items-center gap-1.5">
      <form action={again}>
        <input type="hidden" name="submission" value={desk.id} />
        <button className="btn btn-sm" disabled={busy} title="A second check; what was reported stays">
          Check again
        </button>
      </form>
      <button
        className="btn btn-sm"
        onClick={() => store.getState().decide({ do: isAccepted ? "reopen" : "accept" })}
        aria-pressed={isAccepted}
      >
        {isAccepted ? "Open again" : "Accept"} <kbd className="kbd kbd-xs">{isAccepted ? "X" : "Enter"}</kbd>
      </button>
      <ReturnMenu store={store} item={item} />
    </div>
  );
}

const KEYS: readonly (readonly [string, string])[] = [
  ["↓ ↑", "next, back"],
  ["Enter", "accept, and on to the next"],
  ["X", "open again"],
  ["R", "return this one; Z within ten seconds takes it back"],
  ["1 … 9", "choose a line of the rubric"],
  ["O", "overrule the chosen line"],
  ["+ −", "half a point more or less"],
  ["F, N", "all of its points, none"],
  ["M", "what the program gives"],
  ["C", "comment on the line, or on the whole"],
  ["P", "pin a comment to a place"],
  ["Q", "ask the student back, or answer"],
  ["← →", "the view before, the next"],
  ["Home", "the whole part in view"],
  ["/", "search for a name"],
  ["Esc", "leave without harm"],
];

function KeyHelp({ close }: { close: () => void }) {
  return (
    <div
      className="absolute right-4 top-12 z-30 w-88 border border-base-300 bg-base-100 p-4 shadow"
      role="dialog"
      aria-label="Keys"
    >
      <dl className="grid grid-cols-[6rem_1fr] gap-y-1 text-sm">
        {KEYS.map(([key, text]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="kbd kbd-xs">{key}</kbd>
            </dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      <button className="btn btn-xs mt-3" onClick={close}>
        Close
      </button>
    </div>
  );
}
