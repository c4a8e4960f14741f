import { create, type StoreApi, type UseBoundStore } from "zustand";
import { apply } from "@/core/part/commands";
import { record, redo, startHistory, undo, type History } from "@/core/units/history";
import type { PartDocument } from "@/core/part/document";
import type { MassUnit } from "@/core/units/amounts";
import { sketchOf } from "./documents";
import { BenchKernel } from "./kernel/client";
import { browserKeep } from "../parts/keep";
import { ELSEWHERE, Saver } from "../parts/saver";
import { building, NOTHING } from "./slices/building";
import { beside, fitView } from "./slices/looking";
import type { Room } from "./slices/room";
import { sketching } from "./slices/sketching";
import { stepCard } from "./slices/card";
import { keptCard } from "./slices/kept-card";
import { lookingAt } from "./slices/steps";
import type { Built } from "./kernel/messages";
import { keepSeen, markOf, readSeen, type Seen } from "./seen";
import { Hand, PLAIN_LOOK, type BenchState } from "./state";
import { Camera, PICTORIAL } from "./view/camera";

export { diagnosisOf, sketchOf } from "./documents";

export type BenchStore = UseBoundStore<StoreApi<BenchState>>;

/** What a Bench is opened on. */
export interface Opening {
  readonly document: PartDocument;
  readonly version: number;
  readonly saveTo: string;
  /** Who works here. */
  readonly owner: string;
  readonly mayDefine?: boolean | undefined;
  readonly mayUse?: readonly string[] | undefined;
  /** What the part is of, and its Sheet: kept beside how it looks. */
  readonly heading: string;
  readonly sheet?: { readonly svg: string } | null;
  /** What masses are lettered in, as on the Sheet. */
  readonly massUnit?: MassUnit | undefined;
}

export function createBench({
  document: start,
  version,
  saveTo,
  owner,
  mayDefine = true,
  mayUse,
  heading,
  sheet,
  massUnit,
}: Opening): BenchStore {
  const kernel = new BenchKernel();
  const camera = new Camera();
  camera.foot = 160;
  const keep = browserKeep(owner, saveTo);
  const keptOpen = keptCard(owner, saveTo, () => localStorage);
  const saver = new Saver({ url: saveTo, owner, keep, tell: (saved) => store.setState({ saved }) }, version);
  const store: BenchStore = create<BenchState>((set, get, api) => {
    const document = () => get().history.present;
    const remember = (of: PartDocument, built: Built) =>
      void keepSeen(owner, saveTo, of, built, { heading, sheet: sheet?.svg });
    const rebuild = building({ get, set, document, kernel, saver, remember });
    const openCard = () => {
      rebuild();
      beside(camera, () => get().fit());
    };
    const closeCard = () => {
      camera.side = 0;
      set({ pickField: undefined });
    };
    const mayChange = () => {
      if (saver.isReadOnly) set({ message: { kind: "trouble", text: ELSEWHERE, about: [] } });
      return !saver.isReadOnly;
    };
    const moveTo = (history: History<PartDocument>) => {
      const before = document();
      if (history.present !== before && !mayChange()) return;
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
    const whenBuilt = (next: () => void) => {
      if (!get().building) return next();
      const off = api.subscribe((s) => {
        if (s.building) return;
        off();
        next();
      });
    };
    const ask: Room["ask"] = (q) => kernel.ask(q);
    const room: Room = { get, set, document, moveTo, rebuild, whenBuilt, mayChange, openCard, closeCard, ask };
    const afresh = { typing: undefined, selection: [], message: undefined, dispute: undefined, proposals: undefined };
    /** Another document takes the place of what stands; what stood is no step of undo. */
    const begin = (present: PartDocument, seen?: Seen) => {
      set({ ...afresh, history: startHistory(present), mode: { kind: "solid" }, toolName: "pick", things: [] });
      closeCard();
      if (!seen?.built.mesh) return rebuild(true);
      // of another document only the look is kept: nothing may be picked or read off it
      const isSame = seen.of === markOf(present);
      const { mesh, bodies, properties } = seen.built;
      set({ isAsItWas: true, built: isSame ? seen.built : { ...NOTHING, mesh, bodies, properties } });
      get().fit();
      rebuild();
    };
    const card = stepCard(room, keptOpen);
    /** What is being dragged goes back: let go of later, it would be put over what was gone back to. */
    const letGo = () => get().hand.tool?.abandon?.();
    return {
      history: startHistory(start),
      mode: { kind: "solid" },
      toolName: "pick",
      selection: [],
      things: [],
      pickField: undefined,
      leaving: undefined,
      wrong: new Map(),
      reached: undefined,
      behind: 0,
      upTo: undefined,
      looking: PLAIN_LOOK,
      typing: undefined,
      built: undefined,
      building: true,
      isAsItWas: false,
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
      mayUse,
      massUnit,

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
      undo: () => {
        letGo();
        if (!card.stepDraft("back")) (set(afresh), moveTo(undo(get().history)));
      },
      redo: () => {
        letGo();
        if (!card.stepDraft("again")) (set(afresh), moveTo(redo(get().history)));
      },
      select: (selection) => set({ selection }),
      setTool(toolName) {
        const { hand, toolName: before } = get();
        if (before.split(":")[0] === toolName.split(":")[0]) hand.tool?.release?.();
        set({ toolName, typing: undefined });
      },
      setTyping: (typing) => set({ typing }),
      say: (message) => set({ message }),
      ...card,
      ...lookingAt(room),
      ...sketching(room),
      openPanel: (panel) => set({ panel: get().panel === panel ? undefined : panel }),
      leave() {
        const { mode, typing, toolName, selection, panel, proposals, dispute, swinging } = get();
        set({ reached: undefined });
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
        if (get().leaving) return set({ leaving: undefined });
        if (mode.kind !== "step" && get().pickField) return set({ pickField: undefined });
        if (selection.length) return set({ selection: [] });
        if (mode.kind === "solid") return set({ message: undefined, things: [] });
        if (mode.kind === "step") keptOpen.forget();
        set({ mode: { kind: "solid" }, toolName: "pick", message: undefined, wrong: new Map() });
        closeCard();
        rebuild();
        if (mode.kind === "sketch") camera.turnTo(PICTORIAL, () => get().fit());
        else get().fit();
      },
      fit: () => fitView(get(), document()),
      tick: (id) =>
        set((s) => ({ ticked: new Set(s.ticked.has(id) ? [...s.ticked].filter((t) => t !== id) : [...s.ticked, id]) })),
      settled: () => saver.settled(),
      saver,
      owner,
      async open() {
        const [left, seen] = await Promise.all([saver.takeUp(), readSeen(owner, saveTo)]);
        begin(left && left !== "parted" ? left : start, seen);
        if (left === "parted")
          set({
            message: { kind: "notice", text: "What waited in this browser stands in the history now.", about: [] },
          });
        else if (!saver.isReadOnly) card.openKept();
      },
      goOn(present, next) {
        saver.goOn(next);
        begin(present);
      },
      close() {
        kernel.close();
        saver.close();
      },
    };
  });
  return store;
}
