import type { Exercise } from "@/core/check/exercise/exercise";
import type { Vec2 } from "@/core/geometry/vector";
import type { Arrangement, SheetChange } from "@/core/sheet/layout/edit";
import type { SheetThing } from "@/core/sheet/sizes/pick";
import type { Proof } from "@/core/sheet/proof/proof";
import type { Sheet } from "@/core/sheet/sheet";
import type { Size } from "@/core/sizes/size";
import type { Layout } from "@/core/sheet/layout/layout";

/** What the board's worker draws: the exercise, and how its Sheet is arranged now. */
export type BoardQuestion =
  | { readonly ask: "open"; readonly exercise: Exercise }
  | { readonly ask: "draw"; readonly arrangement: Arrangement }
  /** Something is dragged: where it would go, drawn there. `to`: mm from the upper left corner of the paper. */
  | {
      readonly ask: "pull";
      readonly what: "size" | "view" | "remark";
      readonly id: string;
      readonly to: Vec2;
      /** Of a view: those in projection with it stay where they are. */
      readonly alone: boolean;
      readonly arrangement: Arrangement;
    }
  /** What a place of the paper shows; `near` in mm of paper. */
  | { readonly ask: "thing"; readonly at: Vec2; readonly near: number }
  | { readonly ask: "size-of"; readonly id: string; readonly a: SheetThing; readonly b?: SheetThing }
  | { readonly ask: "prove"; readonly arrangement: Arrangement };

/** A view as the board lists it. */
interface DrawnView {
  readonly key: string;
  readonly title: string;
  readonly scale: number;
  /** Where it stands, mm from the upper left corner of the paper. */
  readonly middle: Vec2;
}

export interface Drawn {
  readonly svg: string;
  readonly sheet: Omit<Sheet, "svg">;
  /** All that the arrangement came to. */
  readonly layout: Layout;
  readonly paper: NonNullable<Arrangement["sheet"]["paper"]>;
  readonly views: readonly DrawnView[];
  /** Views that do not show what was asked for, in a sentence each. */
  readonly troubles: readonly string[];
}

export type BoardAnswer =
  | { readonly drawn: Drawn }
  | { readonly change: SheetChange | undefined; readonly drawn: Drawn | undefined }
  /** A thing, the view it was found in, and the place in that view's coordinates. */
  | { readonly thing: SheetThing | undefined; readonly view: string | undefined; readonly at: Vec2 | undefined }
  | { readonly size: Size }
  | {
      readonly proof: Proof;
      readonly proposed: readonly { readonly size: Size; readonly text: string }[];
      /** What moves with the numbers of an open point, by its sentence: lines of the views, mm of the paper. */
      readonly shows: Readonly<Record<string, readonly (readonly Vec2[])[]>>;
    }
  | { readonly opened: true }
  | { readonly refused: string };

export type ToBoard = { readonly id: number; readonly question: BoardQuestion };
export type FromBoard =
  | { readonly id: number; readonly answer: BoardAnswer }
  | { readonly id: number; readonly failed: string }
  /** Numbers of the reference followed, and how many there are. */
  | { readonly id: number; readonly done: number; readonly of: number };
