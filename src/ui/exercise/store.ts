import { create, type StoreApi, type UseBoundStore } from "zustand";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { ExerciseChange } from "@/core/exercise/change";
import { differences, needsMeasuring } from "@/core/exercise/things";
import type { SheetChange } from "@/core/sheet/layout/edit";
import type { Size } from "@/core/sizes/size";
import type { Outcome } from "@/core/units/refusal";
import type { Found, Measuring } from "@/server/exercises/exercises";
import type { SaveState } from "../parts/saver";
import { SharedExercise, type Clash, type Heard, type SharedOpening } from "../parts/shared-exercise";

/** What was measured on the reference; none while there is no part, or trouble with it. */
export type Measures = Exclude<Found, { readonly trouble: string }>;

interface ExerciseState {
  readonly exercise: Exercise;
  readonly undoes: boolean;
  readonly redoes: boolean;
  readonly saved: SaveState;
  readonly clashes: readonly Clash[];
  /** What was changed elsewhere last. */
  readonly heard: Heard | undefined;
  readonly measures: Measures | undefined;
  /** What is wrong with the reference, in a sentence. */
  readonly trouble: string | undefined;
  /** How far measuring is, in a few words; undefined: what is shown is of the exercise as it stands. */
  readonly measuring: string | undefined;
  /** The version the server holds. */
  readonly version: number;
  apply(change: ExerciseChange): Outcome<void>;
  /** A change of the Sheet, or of a size on it. */
  arrange(change: SheetChange): Outcome<void>;
  undo(): void;
  redo(): void;
  settle(clash: Clash, isMine: boolean): void;
  /** Something has changed on the server, or may have. */
  look(): void;
  open(): Promise<void>;
  /** All is on the server. */
  settled(): Promise<void>;
  hurry(): void;
  isAtRisk(): boolean;
  close(): void;
}
export type ExerciseStore = UseBoundStore<StoreApi<ExerciseState>>;

export interface ExerciseOpening extends SharedOpening {
  readonly measuring: Measuring;
}

export function createExerciseStore(opening: ExerciseOpening): ExerciseStore {
  /** Of which version the measures are. */
  let measuredAt = opening.measuring.version,
    preparing = opening.measuring.preparing,
    // words and terms leave what was measured as it is
    isStale = measuredAt < opening.version;
  const shared = new SharedExercise(opening, {
    saved: (saved) => {
      store.setState({ saved, ...standing() });
      // words need no measuring; the server says whether these were some
      if (saved.kind === "saved" && measuredAt < shared.saver.version) void shared.look();
    },
    changed: ({ past, present, future }, theirs) => {
      isStale ||= needsMeasuring(differences(store.getState().exercise, present));
      store.setState({ exercise: present, undoes: past.length > 0, redoes: future.length > 0, ...standing() });
      if (theirs) store.setState({ heard: theirs });
    },
    clash: (more) => store.setState({ clashes: [...store.getState().clashes, ...more] }),
    measured: ({ version, found, preparing: now }) => {
      measuredAt = version;
      preparing = now;
      isStale = version < shared.saver.version;
      store.setState({ ...(found !== undefined && foundIn(found)), ...standing() });
    },
  });
  const standing = () => ({
    version: shared.saver.version,
    measuring: isStale ? preparing || "waiting" : undefined,
  });
  const store: ExerciseStore = create<ExerciseState>((set, get) => ({
    exercise: opening.exercise,
    undoes: false,
    redoes: false,
    saved: { kind: "saved" },
    clashes: [],
    heard: undefined,
    ...foundIn(opening.measuring.found ?? null),
    ...standing(),
    apply: (change) => shared.apply(change),
    arrange: (change) => {
      const { exercise, measures } = get();
      const stands = { sizes: exercise.sizes ?? measures?.sizes ?? [], sheet: exercise.sheet };
      return shared.apply({ do: "sheet", change, stands });
    },
    undo: shared.undo,
    redo: shared.redo,
    settle(clash, isMine) {
      set({ clashes: get().clashes.filter((c) => c !== clash) });
      if (isMine) shared.insist(clash);
    },
    look: () => void shared.look(),
    open: () => shared.open(),
    settled: () => shared.saver.settled(),
    hurry: () => shared.saver.hurry(),
    isAtRisk: () => shared.saver.isAtRisk,
    close: () => shared.close(),
  }));
  return store;
}

const foundIn = (found: Found | null) => ({
  measures: found && "sheet" in found ? found : undefined,
  trouble: found && "trouble" in found ? found.trouble : undefined,
});

/** The sizes that the Sheet prints: as the exercise says, else as they were proposed. */
export const printedSizes = (exercise: Exercise, measures: Measures | undefined): readonly Size[] =>
  exercise.sizes ?? measures?.sizes ?? [];
