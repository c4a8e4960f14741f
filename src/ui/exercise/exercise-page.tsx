"use client";

import { UndoButtons } from "../parts/undo-buttons";
import Link from "next/link";
import { useCallback, useEffect, useState } from "react";
import { calledThing } from "@/core/exercise/called";
import { Clashes, HeardNote } from "../parts/clashes";
import { useNews } from "../parts/follow";
import { SaveNote } from "../parts/save-note";
import { CheckStation } from "./check-station";
import { GiveStation, type Issued } from "./give-station";
import { PartStation, useDroppedFiles } from "./part-station";
import { PointsStation, useTrial } from "./points-station";
import type { RubricTemplate } from "./rubric-templates";
import { SheetBeside } from "./sheet-beside";
import { SheetStation } from "./sheet-station";
import { slipCost, standings, STATION_NAMES, STATIONS, type Given, type Standing, type Station } from "./standing";
import { createExerciseStore, type ExerciseOpening, type ExerciseStore } from "./store";

interface ExercisePageProps {
  readonly person: { readonly name: string };
  readonly course: { readonly id: string; readonly title: string };
  readonly opening: ExerciseOpening;
  readonly given: Given;
  readonly issued: Issued;
  readonly templates: readonly RubricTemplate[];
  readonly at: Station | undefined;
}

/** An exercise, made at five stations in the order of the work, with its Sheet always in sight. */
export function ExercisePage(props: ExercisePageProps) {
  const [store] = useState(() => createExerciseStore(props.opening));
  useEffect(() => {
    const { open, close, isAtRisk, hurry } = store.getState();
    void open();
    const ask = (e: BeforeUnloadEvent) => isAtRisk() && e.preventDefault();
    window.addEventListener("beforeunload", ask);
    window.addEventListener("online", hurry);
    return () => {
      window.removeEventListener("beforeunload", ask);
      window.removeEventListener("online", hurry);
      close();
    };
  }, [store]);
  return <Stations {...props} store={store} />;
}

/** Where one goes on: the first station that is not in order. */
function firstOpen(all: Readonly<Record<Station, Standing>>): Station {
  return STATIONS.find((s) => !all[s].isDone) ?? "give";
}

function Stations({ store, ...p }: ExercisePageProps & { store: ExerciseStore }) {
  const exercise = store((s) => s.exercise),
    measures = store((s) => s.measures);
  const { id } = p.opening;
  useNews(`exercise:${id}`, () => store.getState().look());
  const trial = useTrial(store, id);
  const all = standings(exercise, measures, p.given, slipCost(trial.tried?.preview));
  const [at, setAt] = useState<Station>(() => p.at ?? firstOpen(all));
  const [sought, setSought] = useState<string>();
  const go = useCallback((station: Station, size?: string) => {
    setAt(station);
    setSought(size);
    window.history.replaceState(null, "", `?at=${station}`);
  }, []);
  const [times, setTimes] = useState(p.issued.times);
  useUndoKeys(store);
  const dropped = useDroppedFiles(store);
  return (
    <div className="flex min-h-screen flex-col lg:h-screen lg:overflow-hidden" {...dropped.listeners}>
      <Header {...p} store={store} giveOut={() => go("give")} />
      <ClashList store={store} me={p.person.name} />
      <main className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,9fr)_minmax(0,7fr)]">
        <div className="min-w-0 px-4 py-3 lg:overflow-y-auto">
          <StationBar all={all} at={at} go={go} />
          <section className="mt-5" aria-label={STATION_NAMES[at]} data-station={at}>
            {at === "part" && (
              <PartStation store={store} id={id} courseId={p.course.id} files={dropped} {...p.issued} />
            )}
            {at === "sheet" && <SheetStation store={store} id={id} />}
            {at === "check" && (
              <CheckStation store={store} students={p.issued.choices.students.length} sought={sought} />
            )}
            {at === "points" && (
              <PointsStation store={store} trial={trial} templates={p.templates} keep={p.issued.keepRubric} />
            )}
            {at === "give" && <GiveStation store={store} id={id} {...p.issued} times={times} keepTimes={setTimes} />}
          </section>
        </div>
        <SheetBeside store={store} id={id} isDropping={dropped.isOver} go={go} />
      </main>
    </div>
  );
}

function Header(p: ExercisePageProps & { store: ExerciseStore; giveOut: () => void }) {
  const { store } = p;
  const exercise = store((s) => s.exercise),
    saved = store((s) => s.saved),
    undoes = store((s) => s.undoes),
    redoes = store((s) => s.redoes);
  const { undo, redo, hurry } = store.getState();
  return (
    <header className="no-print flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 px-3.5 py-1.5">
      <Link href="/courses" className="text-sm text-accent hover:underline" prefetch={false}>
        Back
      </Link>
      <h1 className="min-w-0 truncate font-semibold">
        {exercise.number} {exercise.title}
      </h1>
      <span className="quiet truncate text-sm">{p.course.title}</span>
      <SaveNote saved={saved} hurry={hurry} />
      <UndoButtons {...{ undoes, redoes, undo, redo }} />
      <button className="btn btn-sm btn-primary" onClick={p.giveOut}>
        Give out …
      </button>
    </header>
  );
}

function ClashList({ store, me }: { store: ExerciseStore; me: string }) {
  const clashes = store((s) => s.clashes),
    heard = store((s) => s.heard),
    exercise = store((s) => s.exercise),
    measures = store((s) => s.measures);
  const texts = new Map(measures?.sheet.dimensions.map((d) => [d.id, d.text]));
  const called = (place: string) => calledThing(exercise, place, texts);
  return (
    <>
      <HeardNote heard={heard} me={me} called={called} />
      <Clashes clashes={clashes} called={called} settle={store.getState().settle} />
    </>
  );
}

function StationBar(p: { all: Readonly<Record<Station, Standing>>; at: Station; go: (station: Station) => void }) {
  return (
    <nav aria-label="Stations" className="grid grid-cols-5">
      {STATIONS.map((s) => {
        const { isDone, text } = p.all[s];
        const isHere = s === p.at;
        const edge = isDone ? "border-success" : "border-base-300";
        return (
          <button
            key={s}
            aria-current={isHere ? "step" : undefined}
            onClick={() => p.go(s)}
            className={`flex flex-col items-start border-t-[3px] px-2.5 pb-2 pt-1.5 text-left
              ${isHere ? "border-accent bg-accent/15" : `${edge} hover:bg-base-200`}`}
          >
            <span className={`block text-[15px] font-semibold ${isDone && !isHere ? "text-success" : ""}`}>
              {STATION_NAMES[s]}
              {isDone && <span aria-label=" (in order)"> ✓</span>}
            </span>
            <span className="quiet block text-xs">{text}</span>
          </button>
        );
      })}
    </nav>
  );
}

/** Ctrl Z and Ctrl Y; within a field they are the field's own. */
function useUndoKeys(store: ExerciseStore): void {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const key = e.key.toLowerCase();
      const isTyping = e.target instanceof HTMLElement && e.target.closest("input:not([type=checkbox]), textarea");
      if (!(e.ctrlKey || e.metaKey) || e.altKey || isTyping || (key !== "z" && key !== "y")) return;
      e.preventDefault();
      const { undo, redo } = store.getState();
      if (key === "y" || e.shiftKey) redo();
      else undo();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [store]);
}
