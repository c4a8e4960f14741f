import { create, type StoreApi, type UseBoundStore } from "zustand";
import { apply, freeStepId, record, redo, startHistory, undo, type History } from "@/core/part/commands";
import type { PartDocument } from "@/core/part/document";
import { toSpace } from "@/core/geometry/frame";
import { frameOf } from "@/core/part/steps/sketch/schema";
import { sketchIn, type Sketch } from "@/core/sketch/sketch";
import type { SketchCommand } from "@/core/sketch/commands";
import { solveSketch, type Diagnosis } from "@/core/sketch/solve";
import type { LengthUnit } from "@/core/units/quantity";
import type { Outcome } from "@/core/units/refusal";
import { BenchKernel } from "./kernel/client";
import type { Built } from "./kernel/messages";
import { Saver } from "./saver";
import { clipOf, type Clip } from "@/core/sketch/edit/clipboard";
import { defineTheRest } from "@/core/sketch/define";
import { cornersOf, extentOf } from "@/core/sketch/profile";
import { atWork, isSolidStep, shownDocument, stepMode } from "./step-mode";
import { Hand, PLAIN_LOOK, type BenchState } from "./state";
import { Camera, PICTORIAL, straightAt } from "./view/camera";

export type BenchStore = UseBoundStore<StoreApi<BenchState>>;

const NOTHING: Built = {
  id: 0,
  mesh: undefined,
  model: undefined,
  bodies: [],
  properties: undefined,
  steps: [],
  datums: {},
  placed: {},
  edges: [],
  under: undefined,
};

/** What a step's card takes of the view's width. */
const CARD_PIXELS = 300;

/** Diagnoses are asked for often and by identity. */
const diagnoses = new WeakMap<Sketch, Diagnosis | null>();
export function diagnosisOf(sketch: Sketch, unit: LengthUnit): Diagnosis | undefined {
  if (!diagnoses.has(sketch)) {
    const r = solveSketch(sketch, unit);
    diagnoses.set(sketch, r.ok ? r.value : null);
  }
  return diagnoses.get(sketch) ?? undefined;
}

export const sketchOf = (d: PartDocument, id: string): Sketch | undefined => {
  const s = d.steps.find((x) => x.id === id);
  return s?.kind === "sketch" ? s.sketch : undefined;
};

const pictures = (s: Pick<Sketch, "curves">) => s.curves.filter((c) => c.projected);
/** Curves copied, kept over sketches and reloads. */
const CLIP_KEY = "caliper-clip";

/** Where the numbers of a sketch stand. */
const numbersOf = (sketch: Sketch) => sketch.dimensions.flatMap((d) => (d.at ? [d.at] : []));

/** Whether a sketch lies in the view and fills a fair part of it. */
function isInSight(camera: Camera, sketch: Sketch): boolean {
  const frame = frameOf(sketch.plane);
  const points = [...cornersOf(sketch), ...numbersOf(sketch)].map((p) => camera.toPixels(toSpace(frame, p)));
  if (!points.length) return true;
  const xs = points.map((p) => p[0]),
    ys = points.map((p) => p[1]);
  const inside =
    Math.min(...xs) > camera.side &&
    Math.max(...xs) < camera.width &&
    Math.min(...ys) > 0 &&
    Math.max(...ys) < camera.height - camera.foot;
  return inside && Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) > 0.15 * camera.width;
}

export function createBench(start: PartDocument, version: number, saveTo: string, mayDefine = true): BenchStore {
  const kernel = new BenchKernel();
  const camera = new Camera();
  camera.foot = 160;
  const saver = new Saver(saveTo, version, (saved) => store.setState({ saved }));
  const store: BenchStore = create<BenchState>((set, get) => {
    const document = () => get().history.present;
    const rebuild = (first = false) => {
      const s = get(),
        shown = shownDocument(document(), s.mode, s.upTo);
      set({ building: true });
      const hasSolid = () => shown.steps.some((x) => !x.suppressed && isSolidStep(x));
      kernel.request(
        { document: shown, at: atWork(document(), s.mode), fineness: s.looking.fineness },
        {
          picture: (p) =>
            set((now) => ({
              things: [],
              built: {
                ...(now.built ?? NOTHING),
                ...p,
                mesh: p.mesh ?? (hasSolid() ? now.built?.mesh : undefined),
                model: p.mesh ? undefined : now.built?.model,
              },
            })),
          settle(built, trouble) {
            set({ building: false });
            if (trouble) set({ message: { kind: "trouble", text: trouble, about: [] } });
            if (built) follow(built);
            // the last good picture stays
            if (built)
              set((now) => ({
                built: built.mesh || !hasSolid() ? built : { ...built, mesh: now.built?.mesh, model: now.built?.model },
              }));
            if (first && built) get().fit();
          },
        },
      );
    };
    /** Sketches on the part, and their pictures of its edges, go where it has gone; this is no change to undo. */
    const follow = (built: Built) => {
      const moved = document().steps.map((s) => {
        const at = s.kind === "sketch" ? built.placed[s.id] : undefined;
        if (
          s.kind !== "sketch" ||
          !at ||
          JSON.stringify([at.plane, pictures(at)]) === JSON.stringify([s.sketch.plane, pictures(s.sketch)])
        )
          return s;
        const fresh = new Map(at.curves.map((c) => [c.id, c]));
        return {
          ...s,
          sketch: {
            ...s.sketch,
            plane: at.plane,
            curves: s.sketch.curves.map((c) => (c.projected ? (fresh.get(c.id) ?? c) : c)),
          },
        };
      });
      if (moved.every((s, i) => s === document().steps[i])) return;
      set((s) => ({ history: { ...s.history, present: { ...document(), steps: moved } } }));
      saver.save(document());
    };
    const moveTo = (history: History) => {
      const before = document();
      set({ history });
      if (history.present === before) return;
      saver.save(history.present);
      const { mode } = get();
      if (mode.kind === "sketch" && !sketchOf(history.present, mode.step))
        set({ mode: { kind: "solid" }, toolName: "pick", selection: [], typing: undefined });
      if (mode.kind === "step") {
        // the step whose card is open may have moved, or gone
        const { steps } = history.present,
          at = mode.fresh ? Math.min(mode.at, steps.length) : steps.findIndex((s) => s.id === mode.draft.id);
        if (at >= 0) set({ mode: { ...mode, at } });
        else {
          set({ mode: { kind: "solid" } });
          closeCard();
        }
      }
      rebuild();
    };
    /** A step's card opens: the model is seen in the round beside it. */
    const openCard = () => {
      camera.side = CARD_PIXELS;
      rebuild();
      const edgeOn =
        [camera.toViewer[0], camera.toViewer[1], camera.toViewer[2]].filter((v) => Math.abs(v) > 1e-3).length === 1;
      if (edgeOn) camera.turnTo(PICTORIAL, () => get().fit());
      else get().fit();
    };
    const closeCard = () => {
      camera.side = 0;
      set({ pickField: undefined });
    };
    queueMicrotask(() => rebuild(true));
    return {
      history: startHistory(start),
      mode: { kind: "solid" },
      toolName: "pick",
      selection: [],
      things: [],
      pickField: undefined,
      behind: 0,
      upTo: undefined,
      looking: PLAIN_LOOK,
      typing: undefined,
      built: undefined,
      building: true,
      message: undefined,
      saved: { kind: "saved" },
      ticked: new Set(),
      camera,
      hand: new Hand(),
      dispute: undefined,
      planeShift: {},
      proposals: undefined,
      panel: undefined,
      swinging: false,
      see: "faded",
      mayDefine,

      run(command) {
        const r = apply(document(), command);
        if (!r.ok) {
          const { code } = r.refusal;
          const inSketch = command.do === "sketch" && (code === "conflict" || code === "not-from-here");
          set({
            message: { kind: "trouble", text: r.refusal.sentence, about: r.refusal.about ?? [] },
            dispute: inSketch
              ? { command: command.command, ids: r.refusal.about ?? [], elsewhere: code === "not-from-here" }
              : undefined,
          });
          return false;
        }
        set({
          dispute: undefined,
          proposals: undefined,
          message: r.notice ? { kind: "notice", text: r.notice, about: [] } : undefined,
        });
        moveTo(record(get().history, r.value));
        return true;
      },
      draw(command) {
        const { mode, run, fit } = get();
        if (mode.kind !== "sketch" || !run({ do: "sketch", step: mode.step, command })) return false;
        // a size can make the sketch grow out of sight, or shrink to a dot
        const sized = command.do === "dimension" || command.do === "resize";
        if (sized && !isInSight(camera, sketchOf(document(), mode.step)!)) fit();
        return true;
      },
      undo: () => (
        set({ typing: undefined, selection: [], message: undefined, dispute: undefined, proposals: undefined }),
        moveTo(undo(get().history))
      ),
      redo: () => (
        set({ typing: undefined, selection: [], message: undefined, dispute: undefined, proposals: undefined }),
        moveTo(redo(get().history))
      ),
      select: (selection) => set({ selection }),
      setTool(toolName) {
        const { hand, toolName: before } = get();
        if (before.split(":")[0] === toolName.split(":")[0]) hand.tool?.release?.();
        set({
          toolName,
          typing: undefined,
          ...(/^(pick|constrain|dimension|corner|mirror|pattern|transform)/.test(toolName) ? {} : { selection: [] }),
        });
      },
      setTyping: (typing) => set({ typing }),
      say: (message) => set({ message }),
      openSketch(step) {
        const sketch = sketchOf(document(), step);
        if (!sketch) return;
        closeCard();
        set({
          mode: { kind: "sketch", step },
          toolName: sketch.curves.length ? "pick" : "line",
          selection: [],
          typing: undefined,
          message: undefined,
        });
        rebuild();
        camera.turnTo(straightAt(frameOf(sketch.plane)), () => get().fit());
      },
      takePlane(plane) {
        const { mode } = get();
        closeCard();
        if (mode.kind === "plane" && mode.move) {
          const step = mode.move;
          set({ mode: { kind: "sketch", step }, toolName: "pick" });
          return get().movePlane(plane);
        }
        const id = freeStepId(document(), "sketch");
        const at = get().upTo;
        if (
          get().run({
            do: "add-step",
            step: { id, kind: "sketch", sketch: sketchIn(plane) },
            ...(at !== undefined && { at }),
          })
        ) {
          if (at !== undefined) set({ upTo: at + 1 });
          get().openSketch(id);
        }
      },
      ...stepMode({ get, set, document, rebuild, openCard, closeCard, ask: (q) => kernel.ask(q) }),
      choosePlane: (move) => {
        set({ mode: { kind: "plane", ...(move && { move }) }, planeShift: {}, message: undefined, panel: undefined });
        camera.side = CARD_PIXELS;
        camera.turnTo(PICTORIAL, () => get().fit());
      },
      openPanel: (panel) => set({ panel: get().panel === panel ? undefined : panel }),
      defineRest() {
        const { mode } = get(),
          sketch = mode.kind === "sketch" ? sketchOf(document(), mode.step) : undefined;
        if (!sketch) return;
        if (!get().mayDefine)
          return set({
            message: { kind: "notice", text: "This handout asks you to define the sketch yourself.", about: [] },
          });
        const proposals = defineTheRest(sketch, document().units);
        set(
          proposals.length
            ? { proposals, message: undefined }
            : {
                message: {
                  kind: "notice",
                  text:
                    diagnosisOf(sketch, document().units)?.freedoms === 0
                      ? "Nothing is loose: the sketch is fully defined."
                      : "Nothing could be proposed for what is loose here.",
                  about: [],
                },
              },
        );
      },
      settleDispute(give) {
        const { dispute, mode } = get();
        if (!dispute || mode.kind !== "sketch") return;
        const asked = { do: "sketch", step: mode.step, command: dispute.command } as const;
        const giveWay = (): Outcome<PartDocument> => {
          if ("redraw" in give) return apply(document(), { ...asked, redraw: true });
          const first: SketchCommand =
            "remove" in give
              ? { do: "delete", ids: [give.remove] }
              : { do: "drive", id: give.measure, reference: true };
          const before = apply(document(), { do: "sketch", step: mode.step, command: first });
          return before.ok ? apply(before.value, asked) : before;
        };
        // both changes are one step for undo
        const after = giveWay();
        if (!after.ok)
          return set({
            message: { kind: "trouble", text: after.refusal.sentence, about: after.refusal.about ?? [] },
            dispute: undefined,
          });
        set({ dispute: undefined, message: undefined, typing: undefined });
        moveTo(record(get().history, after.value));
      },
      movePlane(plane) {
        const { mode, draw } = get();
        if (mode.kind !== "sketch" || !draw({ do: "move-plane", plane })) return;
        camera.turnTo(straightAt(frameOf(plane)), () => get().fit());
      },
      copy(cut) {
        const { mode, selection, draw, say } = get(),
          sketch = mode.kind === "sketch" ? sketchOf(document(), mode.step) : undefined;
        const ids = sketch?.curves.map((c) => c.id).filter((id) => selection.includes(id)) ?? [];
        if (!sketch || !ids.length) return;
        localStorage.setItem(CLIP_KEY, JSON.stringify(clipOf(sketch, ids, document().units)));
        if (cut && draw({ do: "delete", ids })) get().select([]);
        else
          say({
            kind: "notice",
            text: `${ids.length} curve${ids.length > 1 ? "s" : ""} copied; Ctrl V puts them into this or another sketch.`,
            about: [],
          });
      },
      paste() {
        const { mode, draw, select } = get(),
          sketch = mode.kind === "sketch" ? sketchOf(document(), mode.step) : undefined;
        if (!sketch) return;
        try {
          const clip = JSON.parse(localStorage.getItem(CLIP_KEY) ?? "") as Clip,
            box = extentOf(clip);
          const aside = box ? 0.1 * Math.max(box[1][0] - box[0][0], box[1][1] - box[0][1]) : 0;
          const before = new Set(sketch.curves.map((c) => c.id));
          if (draw({ do: "paste", clip, by: [aside, aside] }))
            select(
              sketchOf(document(), mode.kind === "sketch" ? mode.step : "")!
                .curves.map((c) => c.id)
                .filter((id) => !before.has(id)),
            );
        } catch {
          set({ message: { kind: "notice", text: "There is nothing to paste: copy some curves first.", about: [] } });
        }
      },

      leave() {
        const { mode, typing, toolName, selection, panel, proposals, dispute, swinging } = get();
        // Escape goes out one level at a time
        if (panel || proposals || dispute || swinging)
          return set({
            panel: undefined,
            proposals: undefined,
            dispute: undefined,
            swinging: false,
            ...(dispute && { message: undefined, typing: undefined }),
          });
        if (typing) return set({ typing: undefined });
        if (mode.kind === "sketch" && toolName !== "pick") return set({ toolName: "pick" });
        if (get().pickField) return set({ pickField: undefined });
        if (selection.length) return set({ selection: [] });
        if (mode.kind === "solid") return set({ message: undefined, things: [] });
        set({ mode: { kind: "solid" }, toolName: "pick", message: undefined });
        closeCard();
        rebuild();
        if (mode.kind === "sketch") camera.turnTo(PICTORIAL, () => get().fit());
        else get().fit();
      },
      fit() {
        const { built, mode } = get();
        const box = built?.properties?.box;
        const points: [number, number, number][] = box
          ? [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [
              i & 1 ? box.max[0] : box.min[0],
              i & 2 ? box.max[1] : box.min[1],
              i & 4 ? box.max[2] : box.min[2],
            ])
          : [];
        // the sketch at work, or, while there is no solid, all there are
        const sketches =
          mode.kind === "sketch"
            ? [sketchOf(document(), mode.step)]
            : box
              ? []
              : document().steps.map((s) => (s.kind === "sketch" ? s.sketch : undefined));
        for (const sketch of sketches) {
          if (!sketch?.curves.length) continue;
          const f = frameOf(sketch.plane);
          const at = (x: number, y: number) =>
            points.push([0, 1, 2].map((i) => f.origin[i]! + f.x[i]! * x + f.y[i]! * y) as [number, number, number]);
          for (const p of [...cornersOf(sketch), ...numbersOf(sketch)]) at(...p);
          at(0, 0);
        }
        if (points.length) camera.fit(points);
        else {
          const half = document().units === "mm" ? 60 : 76;
          camera.fit([
            [-half, -half, -half],
            [half, half, half],
          ]);
        }
      },
      tick: (id) =>
        set((s) => ({ ticked: new Set(s.ticked.has(id) ? [...s.ticked].filter((t) => t !== id) : [...s.ticked, id]) })),
      settled: () => saver.settled(),
      close() {
        kernel.close();
        saver.close();
      },
    };
  });
  return store;
}
