import { z } from "zod";
import { newExercise, readExercise, type Exercise } from "@/core/check/exercise/exercise";
import type { RubricLine } from "@/core/check/exercise/rubric";
import { LineDraftSchema, rubricOf } from "@/ui/exercise/rubric-draft";
import type { Question } from "@/core/check/exercise/question";
import { emptyPart, MAX_DOCUMENT, readPart, type PartDocument } from "@/core/part/document";
import { MAX_IMPORTED } from "@/core/part/steps/imported/schema";
import { checkVarying, numbersThatMayVary } from "@/core/check/exercise/own-numbers";
import type { Varying } from "@/core/check/exercise/varying";
import { FreeDraftSchema, freeOf } from "@/ui/exercise/free-draft";
import { varyingOf } from "@/ui/exercise/own-numbers-draft";
import { drivingNumbers, withSketchesDefined } from "@/core/sizes/numbers";
import { PAPER_NAMES } from "@/core/sheet/layout/paper";
import type { GeneralTolerance } from "@/core/sizes/general";
import { quantityOfSize, type Size } from "@/core/sizes/size";
import { readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { cut, plainText } from "@/core/units/text";

/**
 * The sizes as they were marked: free, free within a band, or with a tolerance of their own; undefined where nothing is
 * marked and nothing was.
 */
function sizesIn(form: FormData, shown: readonly Size[], units: LengthUnit): Outcome<Size[] | undefined> {
  if (form.get("sizes-known") !== String(shown.length)) return done(undefined);
  const sizes: Size[] = [];
  for (const s of shown) {
    const { free: _, tolerance: __, ...rest } = s;
    const read = (name: string): Outcome<number | undefined> => {
      const typed = String(form.get(`${name}-${s.id}`) ?? "").trim();
      return typed ? readQuantity(typed, quantityOfSize(s), units) : done(undefined);
    };
    const [plus, minus, from, to] = [read("plus"), read("minus"), read("from"), read("to")];
    for (const r of [plus, minus, from, to]) if (!r.ok) return r;
    const value = (r: Outcome<number | undefined>) => (r.ok ? r.value : undefined);
    const [p, m, f, t] = [value(plus), value(minus), value(from), value(to)];
    const isOwn = p !== undefined || m !== undefined;
    const band = f !== undefined && t !== undefined ? { from: Math.min(f, t), to: Math.max(f, t) } : true;
    sizes.push({
      ...rest,
      ...(isOwn && { tolerance: { plus: Math.abs(p ?? 0), minus: Math.abs(m ?? 0) } }),
      ...(form.get(`free-${s.id}`) === "on" && { free: band }),
    } as Size);
  }
  const isMarked = (s: Size) => s.free !== undefined || s.tolerance !== undefined;
  return done(sizes.some(isMarked) || shown.some(isMarked) ? sizes : undefined);
}

const DraftSchema = z.array(
  z.strictObject({
    id: plainText().max(40),
    title: plainText().max(400),
    asks: plainText().max(80),
    after: z.array(z.strictObject({ number: plainText().max(200), text: plainText().max(60) })).max(8),
    tolerance: plainText().max(20),
  }),
);
const WHOLE = ["mass", "volume", "area"] as const;

/** The questions as they were typed; new numbers are read in the unit of the exercise. */
function questionsIn(
  form: FormData,
  old: Exercise,
  shown: readonly Size[],
  units: LengthUnit,
): Outcome<readonly Question[]> {
  const typed = form.get("questions");
  if (typeof typed !== "string") return done(old.questions ?? []);
  const drafts = DraftSchema.safeParse(parsed(typed));
  if (!drafts.success) return refuse("bad-questions", "The figures that are asked for could not be read.");
  const numbers = drivingNumbers(withSketchesDefined(old.reference));
  const list: Question[] = [];
  for (const q of drafts.data) {
    const title = q.title.trim();
    if (!title) return refuse("bad-questions", "A figure is asked for without words: say what is asked.");
    const share = Number(q.tolerance.replace(",", ".")) / 100;
    if (!(share > 0 && share <= 1))
      return refuse("bad-questions", `“${title}”: give the tolerance in per cent, above 0.`);
    const after: { number: string; value: number }[] = [];
    for (const a of q.after) {
      const r = readQuantity(a.text, numbers.find((n) => n.id === a.number)?.quantity ?? "length", units);
      if (!r.ok) return refuse("bad-questions", `“${title}”: ${r.refusal.sentence}`);
      after.push({ number: a.number, value: r.value });
    }
    const whole = WHOLE.find((w) => w === q.asks),
      size = shown.find((s) => s.id === q.asks),
      before = old.questions?.find((o) => o.id === q.id)?.asks;
    const asks = whole ? { what: whole } : size ? { what: "size" as const, size } : before;
    if (!asks) return refuse("bad-questions", `“${title}”: choose what it asks for.`);
    list.push({
      id: q.id,
      title,
      asks,
      ...(after.length && { after }),
      tolerance: share,
    });
  }
  return done(list);
}

/** What a library finds it by, as it was typed. */
function aboutIn(text: (name: string) => string): Pick<Exercise, "about" | "series"> {
  const tags = [...new Set(text("tags").split(",").map((t) => t.trim()).filter(Boolean))]; // prettier-ignore
  const [level, minutes, name] = [text("level"), text("minutes"), text("series")];
  const isSaid = tags.length > 0 || level || minutes;
  return {
    ...(isSaid && {
      about: { tags, ...(level && { level: Number(level) }), ...(minutes && { minutes: Number(minutes) }) },
    }),
    ...(name && { series: { name, place: Number(text("series-place")) || 1 } }),
  };
}

/** What students start from, as it was chosen; what there was where the form does not say. */
async function startIn(form: FormData, old: Exercise): Promise<Outcome<Exercise["start"]>> {
  const from = form.get("start");
  if (from === null) return done(old.start);
  if (from === "own") return done({ from: "own", number: String(form.get("start-number") ?? "").trim() });
  if (from !== "starter") return done(undefined);
  const brought = await partIn(form.get("starter"));
  if (!brought.ok) return brought;
  if (brought.value) return done({ from: "starter", part: brought.value });
  return old.start?.from === "starter" ? done(old.start) : refuse("no-starter", "Bring the starter part along.");
}

/** How far sizes may be off in general: undefined as they are printed. */
function generalIn(text: (name: string) => string, units: LengthUnit): Outcome<GeneralTolerance | undefined> {
  const rule = text("tolerance-sizes");
  if (rule !== "own") return done(/^[fmcv]$/.test(rule) ? ({ by: "iso", class: rule } as GeneralTolerance) : undefined);
  const [length, angle] = [
    readQuantity(text("tolerance-length"), "length", units),
    readQuantity(text("tolerance-angle"), "angle", units),
  ];
  for (const r of [length, angle]) if (!r.ok) return refuse("bad-number", `Tolerance: ${r.refusal.sentence}`);
  if (!length.ok || !angle.ok) return done(undefined);
  if (!(length.value > 0 && angle.value > 0)) return refuse("bad-number", "Tolerance: give more than 0.");
  return done({ by: "plain", length: length.value, angle: angle.value });
}

/** What is left to the student, as it was chosen; what there was where the form does not say. */
function freeIn(form: FormData, old: Exercise, units: LengthUnit): Outcome<Exercise["free"]> {
  const typed = form.get("free");
  if (typeof typed !== "string") return done(old.free);
  const drafts = z.array(FreeDraftSchema).max(300).safeParse(parsed(typed));
  return drafts.success
    ? freeOf(drafts.data, units)
    : refuse("bad-free", "What is left to the student could not be read.");
}

/** Own numbers as they were typed; what there was where the form holds none. */
function variesIn(form: FormData, old: Exercise, units: LengthUnit): Outcome<readonly Varying[]> {
  const typed = form.get("varies");
  if (typeof typed !== "string") return done(old.varies ?? []);
  const drafts = z
    .array(z.strictObject({ number: plainText().max(200), text: plainText().max(400) }))
    .max(8)
    .safeParse(parsed(typed));
  if (!drafts.success) return refuse("bad-numbers", "The own numbers could not be read.");
  const varies = varyingOf(drafts.data, numbersThatMayVary(old), units);
  if (!varies.ok) return varies;
  const parts = checkVarying({ ...old, varies: [...varies.value] });
  return parts.ok ? varies : parts;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

const percent = (form: FormData, name: string) => Number(String(form.get(name)).replace(",", ".")) / 100;

/** @param shown the sizes its Sheet prints, as they stood beside the form */
export async function exerciseFrom(
  form: FormData,
  old: Exercise,
  shown: readonly Size[] = [],
): Promise<Outcome<Exercise>> {
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const units = text("units") === "in" ? "in" : "mm";
  const sizes = sizesIn(form, shown, units);
  if (!sizes.ok) return sizes;
  const questions = questionsIn(form, old, shown, units);
  if (!questions.ok) return questions;
  const rubric = rubricIn(form, old);
  if (!rubric.ok) return rubric;
  const start = await startIn(form, old);
  if (!start.ok) return start;
  const varies = variesIn(form, old, units);
  if (!varies.ok) return varies;
  const free = freeIn(form, old, units);
  if (!free.ok) return free;
  const general = generalIn(text, units);
  if (!general.ok) return general;
  const brought = await partIn(form.get("part"));
  if (!brought.ok) return brought;
  const {
    massUnit: _,
    shapeBy: __,
    materialByName: ___,
    questions: ____,
    hints: _____,
    varies: ______,
    about,
    series,
    start: _______,
    free: ________,
    ...rest
  } = old;
  const hints = text("hints")
    .split(/\r?\n/)
    .map((h) => h.trim())
    .filter(Boolean);
  // a file says nothing of material and unit
  const isFile = brought.value?.steps[0]?.kind === "imported";
  const isFirst = brought.value !== undefined && !isFile && !old.reference.steps.length;
  const asked = {
    units: text("units"),
    material: { name: text("material"), density: Number(text("density").replace(",", ".")) },
  };
  return readExercise({
    ...rest,
    number: text("number"),
    title: text("title"),
    brief: text("brief"),
    ...(text("mass-unit") && { massUnit: text("mass-unit") }),
    ...asked,
    // the first reference hands its material and unit on; later differences are shown and asked about
    ...(isFirst && { units: brought.value.units, material: brought.value.material }),
    reference: {
      ...(brought.value ?? referenceFor(old.reference, asked)),
      ...(isFile && asked),
      name: text("title"),
    },
    tolerances: {
      volume: percent(form, "tolerance-volume"),
      mass: percent(form, "tolerance-mass"),
      shape: percent(form, "tolerance-shape"),
      ...(general.value && { sizes: general.value }),
    },
    ...(form.get("shape-by-faces") !== "on" && { shapeBy: "volume" }),
    ...(form.get("material-by-name") === "on" && { materialByName: true }),
    ...(sizes.value && { sizes: sizes.value }),
    ...(hints.length && { hints }),
    ...(form.has("tags") ? aboutIn(text) : { about, series }),
    ...(start.value && { start: start.value }),
    ...(questions.value.length && { questions: questions.value }),
    ...(varies.value.length && { varies: varies.value }),
    ...(free.value && { free: free.value }),
    rubric: rubric.value,
    sheet: {
      ...old.sheet,
      projection: text("projection"),
      printMass: form.get("print-mass") === "on",
      massTolerance: form.get("mass-tolerance") === "on" || undefined,
      printVolume: form.get("print-volume") === "on",
      notes: text("notes"),
      drawnBy: text("drawn-by") || undefined,
      revision: text("revision") || undefined,
      date: text("date") || undefined,
      count: text("count") || undefined,
      owner: text("owner") || undefined,
      exact: form.get("exact") === "on" || undefined,
      general: text("general") || undefined,
      paper: paperFrom(text("paper")),
      fractions: form.get("fractions") === "on" || undefined,
      signs: form.get("signs") === "on" || undefined,
    },
  });
}

/** "A3 lying" as the form has it; empty: the program chooses. */
function paperFrom(typed: string): Exercise["sheet"]["paper"] {
  const name = PAPER_NAMES.find((p) => typed.startsWith(p));
  return name && { name, isLying: typed.endsWith("lying") };
}

/** A reference nobody has begun yet is begun in the exercise's unit and material. */
const referenceFor = (reference: PartDocument, asked: object): object =>
  reference.steps.length ? reference : { ...reference, ...asked };

/** A part document, or the body of a STEP file as the one step of a part. */
async function partIn(file: FormDataEntryValue | null): Promise<Outcome<PartDocument | undefined>> {
  if (!(file instanceof File) || !file.size) return done(undefined);
  if (file.size > MAX_DOCUMENT) return refuse("too-large", "The part document is larger than 2 MB.");
  const text = await file.text();
  if (!/^\s*ISO-10303-21/.test(text)) return readPart(text);
  if (text.length > MAX_IMPORTED)
    return refuse(
      "too-large",
      "The STEP file is larger than 1.5 MB. Write the one part, without what stands round it.",
    );
  const { units, material } = newExercise();
  const step = { id: "imported1", kind: "imported" as const, file: cut(file.name, 120), step: text };
  return readPart({ ...emptyPart(file.name, units, material), steps: [step] });
}

/** The rubric as it was typed; what there was where the form holds none. */
function rubricIn(form: FormData, old: Exercise): Outcome<readonly RubricLine[]> {
  const typed = form.get("rubric");
  if (typeof typed !== "string") return done(old.rubric);
  const drafts = z.array(LineDraftSchema).max(40).safeParse(parsed(typed));
  return drafts.success ? rubricOf(drafts.data) : refuse("bad-rubric", "The rubric could not be read.");
}
