import type { PartDocument } from "@/core/part/document";
import type { History } from "@/core/units/history";
import type { Answer, Question } from "../kernel/messages";
import type { BenchState } from "../state";

/** What a slice of the Bench works with. */
export interface Room {
  get(): BenchState;
  set(s: Partial<BenchState>): void;
  document(): PartDocument;
  /** Goes to another place in the history: kept, and built. */
  moveTo(history: History<PartDocument>): void;
  rebuild(): void;
  /** Goes on once nothing is being built. */
  whenBuilt(next: () => void): void;
  /** Says so where another window works on the part. @returns whether changes can be made here */
  mayChange(): boolean;
  openCard(): void;
  closeCard(): void;
  ask(q: Question): Promise<Answer>;
}

/** What a step's card takes of the view's width. */
export const CARD_PIXELS = 300;
