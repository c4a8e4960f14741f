"use client";

import { DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, closestCenter } from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { Eye, EyeOff, GripVertical, Pencil, TextCursorInput, Trash2, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { edgeRef } from "@/core/part/reference/make";
import { withStepsCalled } from "@/core/naming/words";
import { kindOf, type Step } from "@/core/part/steps/kinds";
import { freeRef } from "./repick";
import { readPath, withValue } from "@/core/naming/field";
import { diagnosisOf, type BenchStore } from "../store";

/** The Steps: what was done in which order, each with its figures; a step in trouble says what and why. */
export function StepList({ store }: { store: BenchStore }) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode),
    upTo = store((s) => s.upTo);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { steps } = document,
    { buildUpTo, run } = store.getState();
  return (
    <section
      aria-label="Steps"
      className={`min-h-0 overflow-y-auto ${mode.kind === "sketch" ? "max-h-[26%] shrink-0" : "flex-1"}`}
    >
      <h2 className="quiet flex items-center justify-between px-3.5 pb-1.5 pt-3 text-xs font-semibold">
        Steps
        {steps.length > 1 && (
          <label className="flex items-center gap-1 font-normal">
            Build up to here
            <select
              aria-label="Build up to here"
              className="select select-xs w-16"
              value={upTo ?? steps.length}
              onChange={(e) => buildUpTo(Number(e.target.value))}
            >
              {steps.map((_, i) => (
                <option key={i} value={i + 1}>
                  {i + 1 === steps.length ? "all" : i + 1}
                </option>
              ))}
            </select>
          </label>
        )}
      </h2>
      {!steps.length && (
        <p className="quiet px-3.5 py-2 text-sm">
          Nothing built yet. Begin with <b>Sketch</b> in the tray: choose a plane and draw the outline.
        </p>
      )}
      <DndContext
        id="steps"
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) =>
          over &&
          active.id !== over.id &&
          run({ do: "move-step", id: String(active.id), to: steps.findIndex((s) => s.id === over.id) })
        }
      >
        <SortableContext items={steps.map((s) => s.id)} strategy={verticalListSortingStrategy}>
          <ol>
            {steps.map((step, i) => (
              <StepRow key={step.id} store={store} step={step} place={i} beyond={upTo !== undefined && i >= upTo} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {upTo !== undefined && (
        <p className="px-3.5 py-1 text-xs">
          Built up to step {upTo}. New steps go in here.{" "}
          <button className="btn btn-xs" onClick={() => buildUpTo(undefined)}>
            Build all
          </button>
        </p>
      )}
    </section>
  );
}

function StepRow({ store, step, place, beyond }: { store: BenchStore; step: Step; place: number; beyond: boolean }) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode),
    state = store((s) => s.built?.steps.find((x) => x.id === step.id));
  const [naming, setNaming] = useState(false);
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: step.id });
  const open = (mode.kind === "sketch" ? mode.step : mode.kind === "step" ? mode.draft.id : undefined) === step.id;
  const read = kindOf(step).read(step, document.units),
    title = step.name ?? read.title,
    { run, editStep } = store.getState();
  const refusal = state?.refusal,
    lost = state?.lost ?? [];
  const rename = (name: string) => {
    setNaming(false);
    if (name !== title) run({ do: "name-step", id: step.id, name });
  };
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      data-step={step.id}
      className={`group relative flex items-start gap-1.5 border-l-3 py-1.5 pl-1 pr-2
        ${beyond ? "opacity-45" : ""}
        ${open ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200"}`}
    >
      <button
        className="quiet cursor-grab pt-1 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
        aria-label={`Move step ${place + 1}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={12} aria-hidden />
      </button>
      <span className="figures quiet w-4 pt-0.5 text-right text-xs">{place + 1}</span>
      {naming ? (
        <input
          autoFocus
          aria-label={`Name of step ${place + 1}`}
          className="input input-xs flex-1"
          defaultValue={title}
          onBlur={(e) => rename(e.target.value)}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === "Enter") rename(e.currentTarget.value);
            if (e.key === "Escape") setNaming(false);
          }}
        />
      ) : (
        <div className="min-w-0 flex-1">
          <button
            className="block w-full text-left"
            onClick={() => editStep(step)}
            onKeyDown={(e) => e.key === "F2" && setNaming(true)}
          >
            <span className={`block font-medium ${step.suppressed ? "line-through opacity-60" : ""}`}>{title}</span>
            <span className="quiet block text-xs">
              {withStepsCalled(detailOf(step, read.detail, store), document.steps)}
            </span>
          </button>
          {refusal && (
            <p role="alert" className="mt-0.5 flex gap-1 text-xs text-error">
              <TriangleAlert size={13} className="mt-0.5 shrink-0" aria-hidden />
              {refusal.sentence}
            </p>
          )}
          {lost.map((l) => (
            <p key={l.path} role="alert" className="mt-0.5 flex flex-wrap items-center gap-1 text-xs text-error">
              {l.sentence !== refusal?.sentence && l.sentence}
              {freeRef(l.ref) && (
                <button className="btn btn-xs" onClick={() => repick(store, step, l.path, l.ref)}>
                  Pick anew
                </button>
              )}
            </p>
          ))}
        </div>
      )}
      <span
        className={`absolute right-1 top-1 flex rounded-field bg-base-100 opacity-0 shadow-sm
          group-focus-within:opacity-100 group-hover:opacity-100`}
      >
        <button
          className="btn btn-ghost btn-xs btn-square"
          title="Edit"
          aria-label={`Edit step ${place + 1}`}
          onClick={() => editStep(step)}
        >
          <Pencil size={13} aria-hidden />
        </button>
        <button
          className="btn btn-ghost btn-xs btn-square"
          title="Rename (F2)"
          aria-label={`Rename step ${place + 1}`}
          onClick={() => setNaming(true)}
        >
          <TextCursorInput size={13} aria-hidden />
        </button>
        <button
          className="btn btn-ghost btn-xs btn-square"
          title={step.suppressed ? "Take part again" : "Suppress"}
          aria-label={`${step.suppressed ? "Take up" : "Suppress"} step ${place + 1}`}
          onClick={() => run({ do: "suppress-step", id: step.id, on: !step.suppressed })}
        >
          {step.suppressed ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
        </button>
        <button
          className="btn btn-ghost btn-xs btn-square"
          title="Delete"
          aria-label={`Delete step ${place + 1}`}
          onClick={() => run({ do: "delete-step", id: step.id })}
        >
          <Trash2 size={13} aria-hidden />
        </button>
      </span>
    </li>
  );
}

function detailOf(step: Step, detail: string, store: BenchStore): string {
  if (step.kind !== "sketch") return detail;
  const diagnosis = diagnosisOf(step.sketch, store.getState().history.present.units);
  const left = !step.sketch.curves.length
    ? "empty"
    : !diagnosis?.solved
      ? "cannot be solved"
      : diagnosis.freedoms
        ? `${diagnosis.freedoms} freedom${diagnosis.freedoms > 1 ? "s" : ""} left`
        : "fully defined";
  return `${detail} · ${left}`;
}

/** The card opens, and the next click on the part takes the place of what was lost. */
function repick(store: BenchStore, step: Step, path: string, ref: Parameters<typeof freeRef>[0]): void {
  const { editStep } = store.getState(),
    take = freeRef(ref);
  if (!take) return editStep(step);
  if (step.kind === "sketch") {
    if (path === "sketch.plane") return store.getState().choosePlane(step.id);
    const { run, say, setPickField } = store.getState();
    say({ kind: "notice", text: "Click the edge that shall be shown in its place.", about: [] });
    return setPickField({
      id: "lost",
      name: "what was lost",
      take: ["edge"],
      give: (m, t) => {
        const was = edgeRef(m, t.index);
        if (!was) return;
        setPickField(undefined);
        const curve = readPath(path).slice(0, -1);
        const shown = withValue(step, [...curve, "projected"], m.edges[t.index]!.key);
        run({ do: "change-step", step: withValue(shown, [...curve, "was"], was) });
      },
    });
  }
  editStep(step, {
    id: "lost",
    name: "what was lost",
    take: [take.kind],
    give: (m, t) => {
      const fresh = take.make(m, t.index);
      if (!fresh) return;
      store.getState().changeDraft((d) => withValue(d, readPath(path), fresh));
      store.getState().setPickField(undefined);
    },
  });
}
