import { create, type StoreApi, type UseBoundStore } from "zustand";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Vec2 } from "@/core/geometry/vector";
import { freeId, frozen, type Arrangement, type SheetChange } from "@/core/sheet/layout/edit";
import type { Proof } from "@/core/sheet/proof/proof";
import { isSameSize, type Size } from "@/core/sizes/size";
import { isSame } from "@/core/units/same";
import type { Things } from "@/core/exercise/things";
import type { Saver, SaveState } from "../parts/saver";
import { SharedExercise, type Clash, type SharedOpening } from "../parts/shared-exercise";
import { BoardClient } from "./client";
import type { BoardAnswer, BoardQuestion, Drawn } from "./messages";
import { goesOn, LEAST_PLACES, madeBy, type BoardTool, type Clicked } from "./tools";

export type Chosen = { readonly what: "size" | "view" | "remark"; readonly id: string };

interface BoardState {
  /** As it is now. */
  readonly exercise: Exercise;
  readonly arrangement: Arrangement;
  readonly undoes: boolean;
  readonly redoes: boolean;
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
  readonly saver: Saver<Things>;
  /** What somebody else has changed as well, and one's own. */
  readonly clashes: readonly Clash[];
  open(): Promise<void>;
  apply(change: SheetChange): void;
  undo(): void;
  redo(): void;
  /** Something has changed on the server, or may have. */
  look(): void;
  /** One's own in place of what somebody else made of it, or theirs after all. */
  settle(clash: Clash, isMine: boolean): void;
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

export interface BoardOpening extends SharedOpening {
  /** Those that the exercise prints where it says nothing itself. */
  readonly sizes: readonly Size[];
}

/** The proof follows when nothing has changed for so long. */
const PROOF_AFTER_MS = 600;

export function createBoard(opening: BoardOpening): BoardStore {
  const { exercise, sizes } = opening;
  /** What lies on the board: the part, its material and its unit. */
  let onBoard = exercise;
  const board = new BoardClient(() => ({ ask: "open", exercise: onBoard })),
    prover = new BoardClient(() => ({ ask: "open", exercise: onBoard }));
  const arrangementOf = (e: Exercise): Arrangement => ({ sizes: e.sizes ?? sizes, sheet: e.sheet });
  const shared = new SharedExercise(opening, {
    saved: (saved) => store.setState({ saved }),
    changed: ({ past, present, future }, theirs) => {
      const { sizes: _, sheet: __, ...part } = present;
      const { sizes: ___, sheet: ____, ...before } = onBoard;
      onBoard = present;
      store.setState({
        exercise: present,
        arrangement: arrangementOf(present),
        undoes: past.length > 0,
        redoes: future.length > 0,
      });
      if (theirs && !isSame(part, before)) {
        // another part lies on the board now
        board.close();
        prover.close();
      }
      void draw();
    },
    clash: (more) => store.setState({ clashes: [...store.getState().clashes, ...more] }),
  });
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
    const { arrangement, drawn } = store.getState();
    return drawn ? frozen(arrangement, drawn.layout, drawn.paper) : arrangement;
  }

  async function draw(): Promise<void> {
    const { arrangement } = store.getState();
    store.setState({ isDrawing: true });
    try {
      const answer = await ask({ ask: "draw", arrangement });
      if (store.getState().arrangement !== arrangement) return;
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
      const { arrangement } = store.getState();
      store.setState({ proving: { done: 0, of: 0 } });
      try {
        const a = await prover.ask({ ask: "prove", arrangement }, (done, of) =>
          store.setState({ proving: { done, of } }),
        );
        if (store.getState().arrangement !== arrangement) return;
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
    arrangement: arrangementOf(exercise),
    undoes: false,
    redoes: false,
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
    saver: shared.saver,
    clashes: [],
    async open() {
      await shared.open();
      await draw();
    },
    apply(change) {
      const stands = change.change === "lay-out" ? get().arrangement : standing();
      const r = shared.apply({ do: "sheet", change, stands });
      if (!r.ok) return trouble(r.refusal.sentence);
      set({ message: undefined });
    },
    undo: shared.undo,
    redo: shared.redo,
    look: () => void shared.look(),
    settle(clash, isMine) {
      set({ clashes: get().clashes.filter((c) => c !== clash) });
      if (isMine) shared.insist(clash);
    },
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
      const { tool, places, drawn, arrangement } = get();
      if (places.length < LEAST_PLACES[tool] || !drawn) return;
      set({ places: [] });
      if (tool === "size") return void addSize(places, arrangement.sizes);
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
      shared.close();
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
