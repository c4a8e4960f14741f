import { create, type StoreApi, type UseBoundStore } from "zustand";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Vec2 } from "@/core/geometry/vector";
import { changed, freeId, frozen, type Arrangement, type SheetChange } from "@/core/sheet/layout/edit";
import type { Proof } from "@/core/sheet/proof/proof";
import { isSameSize, type Size } from "@/core/sizes/size";
import { browserKeep } from "../parts/keep";
import { Saver, type SaveState } from "../parts/saver";
import { BoardClient } from "./client";
import type { BoardAnswer, BoardQuestion, Drawn } from "./messages";
import { goesOn, LEAST_PLACES, madeBy, type BoardTool, type Clicked } from "./tools";
import { record, redo, startHistory, undo, type History } from "@/core/units/history";

export type Chosen = { readonly what: "size" | "view" | "remark"; readonly id: string };

interface BoardState {
  readonly exercise: Exercise;
  readonly history: History<Arrangement>;
  readonly drawn: Drawn | undefined;
  readonly isDrawing: boolean;
  readonly chosen: Chosen | undefined;
  readonly tool: BoardTool;
  /** Places that the tool has been given so far. */
  readonly places: readonly Clicked[];
  readonly message: { readonly isTrouble: boolean; readonly text: string } | undefined;
  readonly proof: Proof | undefined;
  /** Numbers of the reference followed so far, while the proof is made. */
  readonly proving: { readonly done: number; readonly of: number } | undefined;
  /** What the program would print. */
  readonly proposed: readonly { readonly size: Size; readonly text: string }[];
  /** What an open point is about, by its sentence; and the one that is shown. */
  readonly shows: Readonly<Record<string, readonly (readonly Vec2[])[]>>;
  readonly shown: string | undefined;
  readonly saved: SaveState;
  readonly saver: Saver<Arrangement>;
  open(): Promise<void>;
  apply(change: SheetChange): void;
  undo(): void;
  redo(): void;
  choose(c: Chosen | undefined): void;
  take(tool: BoardTool): void;
  click(paper: Vec2, near: number): Promise<void>;
  /** Shows on the Sheet what an open point is about; nothing without one. */
  show(sentence: string | undefined): void;
  /** Ends a tool that takes places until Enter. */
  finish(): void;
  /** Something is dragged: drawn where it would go. */
  /** @param alone a view leaves those in projection with it behind */
  pull(c: Chosen, to: Vec2, alone?: boolean): void;
  /** It is let go. */
  drop(): Promise<void>;
  close(): void;
}
export type BoardStore = UseBoundStore<StoreApi<BoardState>>;

export interface BoardOpening {
  readonly exercise: Exercise;
  /** Those that the exercise prints where it says nothing itself. */
  readonly sizes: readonly Size[];
  readonly version: number;
  readonly saveTo: string;
  readonly owner: string;
}

const MOST_UNDONE = 200;
const ELSEWHERE = "This exercise was changed in another window. Here it can only be looked at: take theirs to go on.";
/** The proof follows when nothing has changed for so long. */
const PROOF_AFTER_MS = 600;

export function createBoard({ exercise, sizes, version, saveTo, owner }: BoardOpening): BoardStore {
  const opening: BoardQuestion = { ask: "open", exercise };
  const board = new BoardClient(opening),
    prover = new BoardClient(opening);
  const keep = browserKeep<Arrangement>(owner, saveTo);
  const saver = new Saver<Arrangement>(
    { url: saveTo, owner, keep, tell: (saved) => store.setState({ saved }), elsewhere: ELSEWHERE },
    version,
  );
  let proofTimer: ReturnType<typeof setTimeout> | undefined,
    isClosed = false;
  /** While something is dragged: where it was last pulled to, and the change that this makes. */
  let pulling: {
    next: { c: Chosen; to: Vec2; alone: boolean } | undefined;
    running: Promise<void> | undefined;
    change?: SheetChange;
  } = {
    next: undefined,
    running: undefined,
  };
  const ask = (q: BoardQuestion): Promise<BoardAnswer> => board.ask(q);
  const trouble = (text: string) => store.setState({ message: { isTrouble: true, text } });
  const failed = (e: unknown): void => {
    if (!isClosed) trouble(`${e instanceof Error ? e.message : String(e)} Try once more.`);
  };

  /** The arrangement with everything where it stands now: what is changed next changes alone. */
  function standing(): Arrangement {
    const { history, drawn } = store.getState();
    return drawn ? frozen(history.present, drawn.layout, drawn.paper) : history.present;
  }

  async function draw(): Promise<void> {
    const arrangement = store.getState().history.present;
    store.setState({ isDrawing: true });
    try {
      const answer = await ask({ ask: "draw", arrangement });
      if (store.getState().history.present !== arrangement) return;
      store.setState({ isDrawing: false });
      if ("refused" in answer) return trouble(answer.refused);
      if ("drawn" in answer && answer.drawn) {
        store.setState({ drawn: answer.drawn });
        const [first] = answer.drawn.troubles;
        if (first) trouble(first);
      }
      prove();
    } catch (e) {
      store.setState({ isDrawing: false });
      failed(e);
    }
  }

  function prove(): void {
    clearTimeout(proofTimer);
    proofTimer = setTimeout(async () => {
      const arrangement = store.getState().history.present;
      store.setState({ proving: { done: 0, of: 0 } });
      try {
        const a = await prover.ask({ ask: "prove", arrangement }, (done, of) =>
          store.setState({ proving: { done, of } }),
        );
        if (store.getState().history.present !== arrangement) return;
        store.setState({
          proving: undefined,
          ...("proof" in a && { proof: a.proof, proposed: a.proposed, shows: a.shows }),
        });
      } catch {
        // the Sheet can be arranged without it
        store.setState({ proving: undefined });
      }
    }, PROOF_AFTER_MS);
  }

  function moveTo(history: History<Arrangement>): void {
    if (history === store.getState().history) return;
    store.setState({ history });
    saver.save(history.present);
    void draw();
  }

  async function pullOn(): Promise<void> {
    const { next } = pulling;
    if (!next) return;
    pulling.next = undefined;
    const { what, id } = next.c;
    const a = await ask({ ask: "pull", what, id, to: next.to, alone: next.alone, arrangement: standing() });
    if ("change" in a && a.change) {
      pulling.change = a.change;
      if (a.drawn) store.setState({ drawn: { ...a.drawn, layout: store.getState().drawn!.layout } });
    }
    return pullOn();
  }

  const store: BoardStore = create<BoardState>((set, get) => ({
    exercise,
    history: startHistory({ sizes: exercise.sizes ?? sizes, sheet: exercise.sheet }),
    drawn: undefined,
    isDrawing: false,
    chosen: undefined,
    tool: "move",
    places: [],
    message: undefined,
    proof: undefined,
    proving: undefined,
    proposed: [],
    shows: {},
    shown: undefined,
    saved: { kind: "saved" },
    saver,
    async open() {
      const left = await saver.takeUp();
      if (left && left !== "parted") set({ history: startHistory(left) });
      await draw();
    },
    apply(change) {
      if (saver.isReadOnly) return trouble(ELSEWHERE);
      const before = get().history.present;
      const r = changed(change.change === "lay-out" ? before : standing(), change);
      if (!r.ok) return trouble(r.refusal.sentence);
      set({ message: undefined });
      moveTo(record(get().history, r.value, MOST_UNDONE));
    },
    undo: () => moveTo(undo(get().history)),
    redo: () => moveTo(redo(get().history)),
    show: (shown) => set({ shown }),
    choose: (chosen) => set({ chosen, message: undefined }),
    take: (tool) => set({ tool, places: [], message: undefined, ...(tool !== "move" && { chosen: undefined }) }),
    async click(paper, near) {
      const { tool } = get();
      try {
        const a = await ask({ ask: "thing", at: paper, near });
        if (!("thing" in a) || get().tool !== tool) return;
        const { places, drawn } = get(),
          [first] = places;
        if (!a.view && !first) return set({ message: { isTrouble: true, text: "Click within a view." } });
        const view = first?.view ?? a.view!;
        // later places belong to the view of the first, however far they are from it
        const scale = drawn?.views.find((v) => v.key === view)?.scale ?? 1;
        const at: Vec2 =
          a.view === view && a.at
            ? a.at
            : [
                first!.at[0] + (paper[0] - first!.paper[0]) / scale,
                first!.at[1] - (paper[1] - first!.paper[1]) / scale,
              ];
        const wantsThing = tool === "size" || tool === "auxiliary";
        if (wantsThing && !a.thing) return trouble("Nothing of the part is drawn there. Click on a line, or a centre.");
        set({ places: [...places, { view, at, paper, thing: a.thing }], message: undefined });
        if (get().places.length >= LEAST_PLACES[tool] && !goesOn(tool)) get().finish();
      } catch (e) {
        failed(e);
      }
    },
    finish() {
      const { tool, places, drawn, history } = get();
      if (places.length < LEAST_PLACES[tool] || !drawn) return;
      set({ places: [] });
      if (tool === "size") return void addSize(places, history.present.sizes);
      const { layout } = standing().sheet;
      const scale = drawn.views.find((v) => v.key === places[0]!.view)?.scale ?? drawn.layout.scale;
      const change = layout && madeBy(tool, places, layout, scale);
      if (!change) return trouble("This makes nothing. Try again.");
      get().apply(change);
      if (change.change === "remark") set({ tool: "move", chosen: { what: "remark", id: change.remark.id } });
      else if (change.change === "add-view") set({ tool: "move", chosen: { what: "view", id: change.view.key } });
      else set({ tool: "move" });
    },
    pull(c, to, alone = false) {
      pulling.next = { c, to, alone };
      pulling.running ??= pullOn()
        .catch(failed)
        .finally(() => (pulling.running = undefined));
    },
    async drop() {
      await pulling.running;
      const { change } = pulling;
      pulling = { next: undefined, running: undefined };
      if (change) get().apply(change);
    },
    close() {
      isClosed = true;
      clearTimeout(proofTimer);
      saver.close();
      board.close();
      prover.close();
    },
  }));

  async function addSize(places: readonly Clicked[], known: readonly Size[]): Promise<void> {
    const [a, b] = places.map((p) => p.thing!);
    const id = freeId(
      "h",
      known.map((s) => s.id),
    );
    try {
      const r = await ask({ ask: "size-of", id, a: a!, ...(b && { b }) });
      if ("refused" in r) return trouble(r.refused);
      if (!("size" in r)) return;
      const same = known.find((s) => isSameSize(s, r.size));
      if (same) {
        store.setState({ chosen: { what: "size", id: same.id } });
        return trouble("This size stands on the Sheet already.");
      }
      store.getState().apply({ change: "add-size", size: r.size });
      store.setState({ chosen: { what: "size", id }, tool: "move" });
    } catch (e) {
      failed(e);
    }
  }
  return store;
}
