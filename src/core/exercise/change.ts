import type { z } from "zod";
import { newExercise, readExercise, type Exercise } from "@/core/check/exercise/exercise";
import { checkVarying } from "@/core/check/exercise/own-numbers";
import type { Question } from "@/core/check/exercise/question";
import type { RubricLine } from "@/core/check/exercise/rubric";
import type { GivenTerms } from "@/core/check/exercise/terms";
import type { Varying } from "@/core/check/exercise/varying";
import { emptyPart, MAX_DOCUMENT, readPart, type PartDocument } from "@/core/part/document";
import { MAX_IMPORTED } from "@/core/part/steps/imported/schema";
import { changed, type Arrangement, type SheetChange } from "@/core/sheet/layout/edit";
import type { FreeSchema } from "@/core/sizes/free";
import type { GeneralTolerance } from "@/core/sizes/general";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { cut } from "@/core/units/text";

/** What an exercise says in one word each; undefined: it says it no longer. */
type Said = Partial<
  Pick<
    Exercise,
    | "number"
    | "title"
    | "brief"
    | "massUnit"
    | "material"
    | "materialByName"
    | "shapeBy"
    | "hints"
    | "about"
    | "series"
    | "start"
  >
>;

/** Every change an exercise can undergo. */
export type ExerciseChange =
  | { readonly do: "say"; readonly to: Said }
  /** Lengths are kept as they are: only what they are lettered and typed in is another unit. */
  | { readonly do: "units"; readonly units: Exercise["units"] }
  /** A share of the target. */
  | { readonly do: "tolerance"; readonly of: "volume" | "mass" | "shape"; readonly share: number }
  /** Of printed sizes that have none of their own; undefined: as printed. */
  | { readonly do: "general"; readonly to: GeneralTolerance | undefined }
  /** A part takes the place of the reference. */
  | { readonly do: "reference"; readonly part: PartDocument }
  | { readonly do: "free"; readonly to: z.infer<typeof FreeSchema> | undefined }
  | { readonly do: "rubric"; readonly lines: readonly RubricLine[] }
  /** A line is changed, or new at the end. */
  | { readonly do: "line"; readonly line: RubricLine }
  | { readonly do: "drop-line"; readonly id: string }
  | { readonly do: "move-line"; readonly id: string; readonly by: number }
  | { readonly do: "question"; readonly question: Question }
  | { readonly do: "drop-question"; readonly id: string }
  | { readonly do: "vary"; readonly varying: Varying }
  | { readonly do: "drop-vary"; readonly number: string }
  /** On what terms it is given out; undefined: as usual. */
  | { readonly do: "terms"; readonly to: GivenTerms }
  /** `stands`: how the Sheet stands, and the sizes that it prints where the exercise itself says none yet. */
  | { readonly do: "sheet"; readonly change: SheetChange; readonly stands: Arrangement };

type Of<K extends ExerciseChange["do"]> = Extract<ExerciseChange, { do: K }>;
type Changes = { readonly [K in ExerciseChange["do"]]: (e: Exercise, c: Of<K>) => Outcome<Exercise> };

/** An exercise with a change; refused in a sentence where it cannot be. Undo is the earlier exercise. */
export function changeExercise(exercise: Exercise, change: ExerciseChange): Outcome<Exercise> {
  const next = (CHANGES[change.do] as (e: Exercise, c: ExerciseChange) => Outcome<Exercise>)(exercise, change);
  if (!next.ok) return next;
  const read = readExercise(next.value);
  // what was not changed stays the very same, not a copy of it
  return read.ok ? next : refuse(read.refusal.code, read.refusal.sentence);
}

/** Fields that are undefined are gone. */
function without<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;
}

/** A member of a list changed, or added at its end. */
const put = <T>(list: readonly T[] | undefined, member: T, isIt: (m: T) => boolean): T[] =>
  list?.some(isIt) ? list.map((m) => (isIt(m) ? member : m)) : [...(list ?? []), member];

/** A list without one; none at all where it was the last. */
function drop<T>(list: readonly T[] | undefined, isIt: (m: T) => boolean): T[] | undefined {
  const rest = (list ?? []).filter((m) => !isIt(m));
  return rest.length ? rest : undefined;
}

const CHANGES: Changes = {
  say,
  units: (e, { units }) => {
    const { reference } = e;
    // a part nobody has begun yet is begun in the unit of its exercise
    return done({ ...e, units, ...(!reference.steps.length && { reference: { ...reference, units } }) });
  },
  tolerance: (e, { of, share }) =>
    share > 0 && share <= 1
      ? done({ ...e, tolerances: { ...e.tolerances, [of]: share } })
      : refuse("bad-tolerance", "A tolerance is more than 0 and at most 100 per cent."),
  general: (e, { to }) => {
    const isBad = to?.by === "plain" && !(to.length > 0 && to.angle > 0);
    if (isBad) return refuse("bad-tolerance", "A tolerance is more than 0.");
    return done({ ...e, tolerances: without({ ...e.tolerances, sizes: to }) });
  },
  reference: withReference,
  free: (e, { to }) => done(without({ ...e, free: to && (to.steps.length || to.faces.length) ? to : undefined })),
  rubric: (e, { lines }) => done({ ...e, rubric: [...lines] }),
  line: (e, { line }) => {
    if (!line.title.trim()) return refuse("no-title", "A line of the rubric needs a title.");
    if (!(line.points >= 0)) return refuse("bad-points", "Points are a number from 0 up.");
    return done({ ...e, rubric: put(e.rubric, without(line), (l) => l.id === line.id) });
  },
  "drop-line": (e, { id }) => done({ ...e, rubric: e.rubric.filter((l) => l.id !== id) }),
  "move-line": (e, { id, by }) => {
    const from = e.rubric.findIndex((l) => l.id === id);
    if (from < 0) return done(e);
    const to = Math.max(0, Math.min(e.rubric.length - 1, from + by));
    const rest = e.rubric.filter((l) => l.id !== id);
    return done({ ...e, rubric: [...rest.slice(0, to), e.rubric[from]!, ...rest.slice(to)] });
  },
  question: (e, { question }) => {
    if (!question.title.trim()) return refuse("no-title", "Say what is asked: a figure is asked for without words.");
    return done({ ...e, questions: put(e.questions, question, (q) => q.id === question.id) });
  },
  "drop-question": (e, { id }) => done(without({ ...e, questions: drop(e.questions, (q) => q.id === id) })),
  vary: (e, { varying }) => {
    const next = { ...e, varies: put(e.varies, varying, (v) => v.number === varying.number) };
    const parts = checkVarying(next);
    return parts.ok ? done(next) : parts;
  },
  "drop-vary": (e, { number }) => done(without({ ...e, varies: drop(e.varies, (v) => v.number === number) })),
  terms: (e, { to }) =>
    to.accepts && !to.accepts.length
      ? refuse("takes-nothing", "Say what a handout takes: tick at least one.")
      : done({ ...e, terms: without({ ...e.terms, ...to }) }),
  sheet: (e, { change, stands }) => {
    const next = changed(stands, change);
    if (!next.ok) return next;
    const { sizes, sheet } = next.value;
    // what the program proposes stays its own as long as nothing is said of it
    const isChosen = e.sizes !== undefined || change.change !== "settings";
    return done({ ...e, ...(isChosen && { sizes: [...sizes] }), sheet: without(sheet) });
  },
};

function say(e: Exercise, { to }: Of<"say">): Outcome<Exercise> {
  if (to.title !== undefined && !to.title.trim()) return refuse("no-title", "An exercise needs a title.");
  if (to.material && !(to.material.density > 0)) return refuse("bad-density", "A density is more than 0 g/cm³.");
  const next: Exercise = without({ ...e, ...to });
  // a part nobody has begun yet is begun in the material of its exercise
  const isToFollow = to.material && !e.reference.steps.length;
  return done(isToFollow ? { ...next, reference: { ...e.reference, material: to.material! } } : next);
}

/**
 * The first reference hands its material and unit on to the exercise; later differences are shown and asked about. A
 * body from a file says nothing of either.
 */
function withReference(e: Exercise, { part }: Of<"reference">): Outcome<Exercise> {
  const { title, units, material } = e;
  const isFile = part.steps[0]?.kind === "imported";
  const reference = { ...part, name: title, ...(isFile && { units, material }) };
  const isFirst = !isFile && !e.reference.steps.length;
  return done({ ...e, reference, ...(isFirst && { units: part.units, material: part.material }) });
}

/** A part document, or the one body of a STEP file as the one step of a part. @param name of the file */
export function partOfFile(name: string, text: string): Outcome<PartDocument> {
  if (text.length > MAX_DOCUMENT) return refuse("too-large", "This file is larger than 2 MB.");
  if (!/^\s*ISO-10303-21/.test(text)) return readPart(text);
  if (text.length > MAX_IMPORTED)
    return refuse(
      "too-large",
      "The STEP file is larger than 1.5 MB. Write the one part, without what stands round it.",
    );
  const { units, material } = newExercise();
  const step = { id: "imported1", kind: "imported" as const, file: cut(name, 120), step: text };
  return readPart({ ...emptyPart(name, units, material), steps: [step] });
}
