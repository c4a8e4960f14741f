import { z } from "zod";
import { plainText } from "@/core/units/text";

/** A place that a remark is pinned to: on the part, in the reference's coordinates, or on the Sheet's paper; mm. */
const PinSchema = z.discriminatedUnion("on", [
  z.strictObject({ on: z.literal("part"), at: z.tuple([z.number(), z.number(), z.number()]) }),
  z.strictObject({ on: z.literal("sheet"), at: z.tuple([z.number(), z.number()]) }),
]);
export type Pin = z.infer<typeof PinSchema>;

const Line = plainText().min(1).max(40);
const Text = plainText().trim().min(1).max(2000);

/** What whoever marks decides about a submission. */
export const DecisionSchema = z.discriminatedUnion("do", [
  /** Other points for a line than the program gives; of a line marked by hand, its points. */
  z.strictObject({
    do: z.literal("overrule"),
    line: Line,
    points: z.number().min(0).max(1000),
    reason: plainText().trim().max(1000),
  }),
  /** The program's points again. */
  z.strictObject({ do: z.literal("withdraw"), line: Line }),
  /** About a line, a place, or the whole; said again under the same name it takes the place of what was said. */
  z.strictObject({
    do: z.literal("comment"),
    comment: z.uuid(),
    line: Line.optional(),
    pin: PinSchema.optional(),
    text: Text,
  }),
  z.strictObject({ do: z.literal("uncomment"), comment: z.uuid() }),
  /** A question back to the student, or an answer to theirs. */
  z.strictObject({ do: z.literal("ask"), text: Text }),
  z.strictObject({ do: z.literal("answer"), text: Text }),
  /** Nothing more to be said. */
  z.strictObject({ do: z.literal("settle") }),
  /** Looked at, and good as it stands. */
  z.strictObject({ do: z.literal("accept") }),
  z.strictObject({ do: z.literal("reopen") }),
  /** Given to the student as it stands. */
  z.strictObject({ do: z.literal("return") }),
]);
export type Decision = z.infer<typeof DecisionSchema>;

/** What a student says: a question, or an answer to one. */
export const WordSchema = z.strictObject({ do: z.literal("say"), text: Text });
export type Word = z.infer<typeof WordSchema>;

/** One line of a submission's history: who, when, what. */
export interface Entry {
  readonly id: string;
  /** ISO, by the server's clock. */
  readonly at: string;
  readonly by: string;
  readonly what: Decision | Word;
  /** What was said about another try of the same student: which. */
  readonly attempt?: number | undefined;
}

/** What is talk with the student about their work, whichever try it began with. */
export const TALK = ["ask", "answer", "say", "settle"] as const;
export const isTalk = (what: Decision | Word): boolean => (TALK as readonly string[]).includes(what.do);

export interface Comment {
  readonly id: string;
  readonly line?: string | undefined;
  readonly pin?: Pin | undefined;
  readonly text: string;
  readonly by: string;
  readonly at: string;
}
interface Overrule {
  readonly points: number;
  readonly reason: string;
  readonly by: string;
  readonly at: string;
}
interface Said {
  readonly id: string;
  readonly from: "student" | "instructor";
  readonly by: string;
  readonly at: string;
  readonly text: string;
  /** The other try it was said about. */
  readonly attempt?: number | undefined;
}

/** What stands of all that was decided. */
export interface Decided {
  readonly overrules: ReadonlyMap<string, Overrule>;
  readonly comments: readonly Comment[];
  readonly talk: readonly Said[];
  /** Whose turn it is to say something. */
  readonly turn: "student" | "instructor" | undefined;
  /** When it was looked at and accepted last; nothing decided after it has opened it again. */
  readonly acceptedAt: string | undefined;
  readonly returnedAt: string | undefined;
}

/** Folds a history, oldest first, into what stands. */
export function decided(history: readonly Entry[]): Decided {
  const overrules = new Map<string, Overrule>();
  const comments = new Map<string, Comment>();
  const talk: Said[] = [];
  let turn: Decided["turn"], acceptedAt: string | undefined, returnedAt: string | undefined;
  for (const { id, at, by, what, attempt } of history) {
    const said = { id, by, at, ...(attempt !== undefined && { attempt }) };
    switch (what.do) {
      case "overrule":
        overrules.set(what.line, { points: what.points, reason: what.reason, by, at });
        break;
      case "withdraw":
        overrules.delete(what.line);
        break;
      case "comment": {
        const { comment, line, pin, text } = what;
        comments.set(comment, { id: comment, line, pin, text, by, at });
        break;
      }
      case "uncomment":
        comments.delete(what.comment);
        break;
      case "ask":
        talk.push({ ...said, from: "instructor", text: what.text });
        turn = "student";
        break;
      case "answer":
        talk.push({ ...said, from: "instructor", text: what.text });
        turn = undefined;
        break;
      case "say":
        talk.push({ ...said, from: "student", text: what.text });
        turn = "instructor";
        break;
      case "settle":
        turn = undefined;
        break;
      case "accept":
        acceptedAt = at;
        break;
      case "reopen":
        acceptedAt = undefined;
        break;
      case "return":
        // what is given back was looked at
        acceptedAt = at;
        returnedAt = at;
        break;
    }
  }
  return { overrules, comments: [...comments.values()], talk, turn, acceptedAt, returnedAt };
}
