import { readExercise, type Exercise } from "@/core/check/exercise/exercise";
import { isSame } from "@/core/units/same";
import type { Outcome } from "@/core/units/refusal";

/**
 * An exercise in pieces that can be changed by themselves, by their places: "title", "rubric/mass", "sizes/d3",
 * "sheet/layout/places/d3". A list has its order under its own place; null: it is not there.
 */
export type Things = Readonly<Record<string, unknown>>;

/** Lists whose members are things, and what their ids are called. */
const LISTS: Readonly<Record<string, string>> = {
  sizes: "id",
  questions: "id",
  varies: "number",
  rubric: "id",
  "sheet/layout/views": "key",
  "sheet/layout/remarks": "id",
};
/** Objects whose fields are things. */
const RECORDS: ReadonlySet<string> = new Set([
  "",
  "tolerances",
  "terms",
  "sheet",
  "sheet/layout",
  "sheet/layout/places",
]);

/**
 * What is there as soon as something is in it: taken away by one, it stands where another has put something in
 * meanwhile. All else needs its frame: a layout without a scale is none, and one size alone is no proposal.
 */
const STANDS_BY_ITSELF: ReadonlySet<string> = new Set(["terms", "questions", "varies"]);

const at = (place: string, name: string): string => (place ? `${place}/${name}` : name);

type Fields = Readonly<Record<string, unknown>>;

/** An exercise as its things. */
export function thingsOf(exercise: Exercise): Map<string, unknown> {
  const things = new Map<string, unknown>();
  put(things, "", exercise);
  return things;
}

function put(things: Map<string, unknown>, place: string, value: unknown): void {
  if (value === undefined) return;
  const id = LISTS[place];
  if (id) {
    const members = value as readonly Fields[];
    things.set(
      place,
      members.map((m) => m[id]),
    );
    for (const m of members) things.set(at(place, String(m[id])), m);
    return;
  }
  if (!RECORDS.has(place)) return void things.set(place, value);
  if (place) things.set(place, {});
  for (const [name, field] of Object.entries(value as Fields)) put(things, at(place, name), field);
}

/**
 * An exercise of its things. Of a list the order is a wish: what is there and has no place in it stands at its end, and
 * what has a place and is not there is none.
 */
function exerciseOf(things: ReadonlyMap<string, unknown>): unknown {
  const inside = new Map<string, string[]>();
  for (const place of things.keys()) {
    const own = ownerOf(place);
    const names = inside.get(own) ?? [];
    names.push(own ? place.slice(own.length + 1) : place);
    inside.set(own, names);
  }
  const build = (place: string): unknown => {
    if (place && !things.has(place)) return undefined;
    const names = inside.get(place) ?? [];
    if (LISTS[place]) {
      const order = new Map((things.get(place) as readonly string[]).map((name, i) => [name, i]));
      const rank = (name: string) => order.get(name) ?? Infinity;
      return [...names]
        .sort((a, b) => (rank(a) === rank(b) ? 0 : rank(a) - rank(b)))
        .map((name) => things.get(at(place, name)));
    }
    if (!RECORDS.has(place)) return things.get(place);
    const fields = names.map((name) => [name, build(at(place, name))] as const);
    return Object.fromEntries(fields.filter(([, v]) => v !== undefined));
  };
  return build("");
}

/** The list or object that a thing belongs to; the exercise itself: "". */
function ownerOf(place: string): string {
  let owner = "";
  for (const p of [...Object.keys(LISTS), ...RECORDS])
    if (p.length > owner.length && place.startsWith(`${p}/`)) owner = p;
  return owner;
}

/** What has to be changed in an exercise to make another of it; nothing else is written. */
export function differences(before: Exercise, after: Exercise): Things {
  if (before === after) return {};
  const [was, is] = [thingsOf(before), thingsOf(after)];
  const changed: Record<string, unknown> = {};
  for (const [place, value] of is) if (!isSame(was.get(place), value)) changed[place] = value;
  for (const place of was.keys()) if (!is.has(place)) changed[place] = null;
  return changed;
}

/** An exercise with some things changed; the rest is the very same. Not read: things of one's own fit. */
export function withThings(exercise: Exercise, things: Things): Exercise {
  if (!Object.keys(things).length) return exercise;
  const all = thingsOf(exercise);
  for (const [place, value] of Object.entries(things))
    if (value === null) all.delete(place);
    else all.set(place, value);
  for (const place of STANDS_BY_ITSELF) {
    const isFilled = !all.has(place) && [...all.keys()].some((p) => p.startsWith(`${place}/`));
    if (isFilled) all.set(place, LISTS[place] ? [] : {});
  }
  return exerciseOf(all) as Exercise;
}

/** An exercise with things that came from elsewhere; refused where they make none. */
export const readWithThings = (exercise: Exercise, things: Things): Outcome<Exercise> =>
  readExercise(withThings(exercise, things));

/** The things of an exercise at some places; null where there is none. */
export function thingsAt(exercise: Exercise, places: readonly string[]): Things {
  const all = thingsOf(exercise);
  return Object.fromEntries(places.map((p) => [p, all.get(p) ?? null]));
}

/** A place that holds an order or says that there is a list: two who add to one list are not at odds. */
export const isFrame = (place: string): boolean => place in LISTS || RECORDS.has(place);

/** What two people have both changed, and not alike, since they stood on the same. */
export const atOdds = (mine: Things, theirs: Things): string[] =>
  Object.keys(theirs).filter((p) => p in mine && !isFrame(p) && !isSame(mine[p], theirs[p]));

/**
 * What does not change what is measured on the reference and drawn of it: the words beside it, the points, and what
 * students begin with.
 */
const UNMEASURED =
  /^(?:brief|hints|about|series|start|varies|materialByName|shapeBy|rubric|terms|tolerances\/(?:volume|shape))(?:\/|$)/;

/** Whether an exercise has to be measured anew after such a change. */
export const needsMeasuring = (things: Things): boolean => Object.keys(things).some((p) => !UNMEASURED.test(p));

/**
 * What a trial of typical mistakes does not ask about: words, and points, which are given for what it found. Another
 * line may ask for what was not looked at.
 */
const UNTRIED = /^(?:number|title|brief|hints|about|series|start|rubric\/(?!ways)|terms|sheet)/;

/** Whether typical mistakes have to be tried anew when this thing has changed. */
export const isTried = (place: string): boolean => !UNTRIED.test(place);
