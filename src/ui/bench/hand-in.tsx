"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import type { Accepted, PartFile } from "@/core/check/given/part-file";
import type { AskedFigures } from "@/core/check/exercise/question";
import { areTriesUsed, triesLeftText, type Tries } from "@/core/grade/late";
import { strayThings } from "@/core/part/strays";
import { titleOf } from "@/core/part/steps/kinds";
import type { Sheet } from "@/core/sheet/sheet";
import type { AnswersStore } from "./answers";
import { endingsOf, fileOffer, partFileOf } from "./file-from-elsewhere";
import { Gauges } from "./gauges";
import { pictureNow, shownNow } from "./history/shown";
import { diagnosisOf, type BenchStore } from "./store";

/** What could still be mended before a part goes out: plain sentences. */
function openPoints(store: BenchStore, sheet: Sheet | null): string[] {
  const { history, built, ticked } = store.getState();
  const { present } = history;
  const loose = present.steps.flatMap((s, i) => {
    if (s.kind !== "sketch" || !s.sketch.curves.length) return [];
    const d = diagnosisOf(s.sketch, present.units);
    const called = `Step ${i + 1} (${titleOf(s)})`;
    if (!d?.solved) return [`${called} cannot be solved.`];
    return d.freedoms ? [`${called} can still move in ${d.freedoms} way${d.freedoms > 1 ? "s" : ""}.`] : [];
  });
  const trouble = (built?.steps ?? []).flatMap((b) => {
    const i = present.steps.findIndex((s) => s.id === b.id);
    return b.refusal && i >= 0
      ? [`Step ${i + 1} (${titleOf(present.steps[i]!)}) is not built: ${b.refusal.sentence}`]
      : [];
  });
  const strays = strayThings(present, built?.properties?.bodies ?? 0, built?.bodies.length ?? 0).map((s) => s.text);
  const unused = sheet?.dimensions.filter((d) => !ticked.has(d.id)) ?? [];
  const sizes = unused.length
    ? [
        `${unused.length} printed size${unused.length > 1 ? "s are" : " is"} not ticked off yet: ${unused
          .slice(0, 8)
          .map((d) => d.text)
          .join(", ")}${unused.length > 8 ? " …" : ""}.`,
      ]
    : [];
  return [...(present.steps.length ? [] : ["Nothing is built yet."]), ...trouble, ...loose, ...strays, ...sizes];
}

interface Props {
  store: BenchStore;
  to: string;
  sheet: Sheet | null;
  accepts: readonly Accepted[];
  figures: AskedFigures | undefined;
  answers: AnswersStore;
  tries: Tries;
}

/** The button, and once more what goes out before it goes. */
export function HandIn(props: Props) {
  const [asking, setAsking] = useState(false);
  const { tries } = props;
  if (areTriesUsed(tries))
    return (
      <span className="quiet text-sm" title={triesLeftText(tries)}>
        {tries.most === 1 ? "Handed in; there was one try" : `All ${tries.most} tries are used`}
      </span>
    );
  return (
    <>
      <button className="btn btn-primary btn-sm" title={triesLeftText(tries)} onClick={() => setAsking(true)}>
        Hand in
      </button>
      {asking && <HandInCard {...props} close={() => setAsking(false)} />}
    </>
  );
}

function handInText(file: PartFile | undefined, figuresAlone: boolean): string {
  if (file) return `Hand in ${file.name}`;
  return figuresAlone ? "Hand in the figures" : "Hand in now";
}

/** Hand-ins without an answer yet, by what they hold: the same once more is the same hand-in, also from a new card. */
const sent = new Map<string, string>();
function handInId(what: string): string {
  const id = sent.get(what) ?? crypto.randomUUID();
  sent.set(what, id);
  return id;
}

/** So long an answer is waited for. */
const PATIENCE_MS = 15_000;

function HandInCard({ store, to, sheet, accepts, figures, answers, tries, close }: Props & { close: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const router = useRouter();
  const [going, setGoing] = useState(false);
  const [trouble, setTrouble] = useState<string>();
  const [picture] = useState(pictureNow);
  const building = store((s) => s.building);
  // what is still open changes while the card stands: a build ends, a size is ticked
  store((s) => s.built);
  store((s) => s.ticked);
  const typed = answers((s) => s.answers);
  const built = store((s) => s.history.present.steps.length > 0);
  const takesFiles = accepts.includes("step") || accepts.includes("mesh");
  const questions = figures?.questions ?? [];
  const untyped = questions.filter((q) => !typed[q.id]?.trim());
  // nothing built, or nothing built is wanted: then the figures go out alone
  const figuresAlone = accepts.includes("figures") && (!built || !accepts.includes("part"));
  const points = [
    ...(figuresAlone ? [] : openPoints(store, sheet)),
    ...(untyped.length ? [`${untyped.length} of ${questions.length} figures are not typed yet.`] : []),
  ];
  useEffect(() => dialog.current?.showModal(), []);
  const [file, setFile] = useState<PartFile>();
  const choose = async (chosen: File | undefined) => {
    setTrouble(undefined);
    setFile(undefined);
    if (!chosen) return;
    const r = await partFileOf(chosen, figures?.units ?? "mm");
    if (r.ok) setFile(r.value);
    else setTrouble(r.refusal.sentence);
  };
  const send = async ({ shown, ...what }: { shown?: ReturnType<typeof shownNow> } & Record<string, unknown>) => {
    const id = handInId(JSON.stringify([to, what, typed]));
    const r = await fetch(to, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ id, owner: store.getState().owner, answers: typed, ...what, ...(shown && { shown }) }),
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
    const answer = (await r.json()) as { submission?: string; sentence?: string };
    // it has an answer: what is handed in next is another try
    sent.clear();
    if (r.ok) return router.push(`/submissions/${answer.submission}`);
    setTrouble(answer.sentence ?? "It could not be handed in.");
  };
  const give = async () => {
    setGoing(true);
    setTrouble(undefined);
    try {
      const { saver, settled } = store.getState();
      if (file || figuresAlone) {
        await send({ version: saver.version, ...(file ? { file } : { figuresOnly: true }) });
        return setGoing(false);
      }
      // only what the server has can be handed in
      await Promise.race([settled(), new Promise((r) => setTimeout(r, PATIENCE_MS))]);
      const { saved } = store.getState();
      if (saved.kind !== "saved") {
        setTrouble(
          saved.kind === "sending"
            ? "Your last change is still on its way to the server. Try again in a moment."
            : `Not handed in: the server does not have what is on your screen. ${saved.sentence}`,
        );
        return setGoing(false);
      }
      await send({ version: saver.version, shown: shownNow(store) });
    } catch {
      setTrouble("No answer from the server. Your part is kept; press Hand in again, it counts as one.");
    }
    setGoing(false);
  };
  return (
    <dialog
      ref={dialog}
      className={`m-auto max-h-[92vh] w-[52rem] max-w-[94vw] overflow-y-auto rounded-box border border-base-300
        bg-base-100 p-5 text-base-content shadow-xl backdrop:bg-black/30`}
      aria-label="Hand in"
      onClose={close}
      onKeyDown={(e) => e.stopPropagation()}
    >
      <h2 className="text-xl font-semibold">This goes out</h2>
      <div className="mt-3 grid gap-4 sm:grid-cols-[1fr_18rem]">
        <div>
          {picture && built && (
            <img
              src={picture}
              alt="Your part as it stands"
              className="max-h-56 w-full rounded-field border border-base-300 object-contain"
            />
          )}
          {points.length ? (
            <>
              <h3 className="mt-3 font-semibold text-accent">Still open</h3>
              <ul className="list-disc space-y-1 pl-5 text-sm" aria-label="Still open">
                {points.slice(0, 12).map((p) => (
                  <li key={p}>{p}</li>
                ))}
              </ul>
            </>
          ) : (
            <p className="mt-3">
              {figuresAlone
                ? "Every figure is typed. The figures go out alone, without a part."
                : "Nothing is left open: every sketch is fully defined and every printed size ticked off."}
            </p>
          )}
        </div>
        <Gauges store={store} sheet={sheet} />
      </div>
      {takesFiles && (
        <label className="mt-4 block">
          <span className="quiet block text-sm">{fileOffer(accepts)}</span>
          <input
            type="file"
            accept={endingsOf(accepts)}
            className="file-input file-input-sm mt-1 w-full max-w-md"
            onChange={(e) => void choose(e.target.files?.[0])}
          />
        </label>
      )}
      {tries.most !== null && <p className="mt-3">{triesLeftText(tries)}</p>}
      {trouble && (
        <p role="alert" className="mt-3 text-error">
          {trouble}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <button className="btn" onClick={() => dialog.current?.close()}>
          Go on working
        </button>
        <button
          className="btn btn-primary"
          autoFocus
          disabled={going || (building && !file)}
          onClick={() => void give()}
        >
          {handInText(file, figuresAlone)}
        </button>
      </div>
    </dialog>
  );
}
