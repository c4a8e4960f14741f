import type { HandoutRow } from "@/server/courses/courses";

export type Handout = Omit<HandoutRow, "due_at" | "opens_at" | "closes_at" | "withdrawn_at" | "worked_at"> & {
  due_at: string;
  opens_at: string | null;
  withdrawn_at: string | null;
  worked_at: string | null;
  /** It opens later. */
  isAhead: boolean;
};
export interface Course {
  readonly id: string;
  readonly title: string;
  readonly term: string;
  readonly role: string;
  readonly handouts: readonly Handout[];
  readonly exercises: readonly { id: string; number: string; title: string; pictured: string | null }[];
}
