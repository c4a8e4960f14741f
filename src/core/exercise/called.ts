import type { Exercise } from "@/core/check/exercise/exercise";
import { thingsOf } from "./things";

const CALLED: Readonly<Record<string, string>> = {
  number: "the number",
  title: "the title",
  brief: "the brief",
  units: "the unit",
  massUnit: "the unit of masses",
  material: "the material",
  materialByName: "whether the material goes by its name",
  reference: "the reference part",
  shapeBy: "what the shape line wants",
  free: "what is left to the student",
  hints: "the hints",
  about: "tags, level and minutes",
  series: "the place in a series",
  start: "what students start from",
  "tolerances/volume": "the tolerance of the volume",
  "tolerances/mass": "the tolerance of the mass",
  "tolerances/shape": "the tolerance of the shape",
  "tolerances/sizes": "the general tolerance",
  "terms/graceMinutes": "the minutes of grace",
  "terms/afterDue": "what happens after it was due",
  "terms/pointsADay": "the points a day",
  "terms/mayDefine": "whether the Bench may define the rest",
  "terms/accepts": "what a handout takes",
  "terms/mayUse": "the steps that may be used",
  "terms/attemptsMost": "the number of tries",
  "terms/counts": "which try counts",
  "terms/shows": "what students see",
  "terms/practice": "the checks before handing in",
  "terms/weight": "the weight in the gradebook",
  "terms/holdBack": "whether marks are held back",
  "sheet/projection": "the projection",
  "sheet/printMass": "whether the Sheet prints the mass",
  "sheet/massTolerance": "whether the mass is printed with its tolerance",
  "sheet/printVolume": "whether the Sheet prints the volume",
  "sheet/notes": "the notes on the Sheet",
  "sheet/drawnBy": "who has drawn the Sheet",
  "sheet/date": "the date on the Sheet",
  "sheet/revision": "the revision on the Sheet",
  "sheet/count": "the count of sheets",
  "sheet/owner": "the owner on the Sheet",
  "sheet/general": "the general tolerance on the Sheet",
  "sheet/paper": "the paper",
  "sheet/layout/scale": "the scale of the Sheet",
};

const field = (thing: unknown, name: string): string | undefined => {
  const value = thing && typeof thing === "object" ? (thing as Record<string, unknown>)[name] : undefined;
  return typeof value === "string" ? value : undefined;
};

/** A thing of an exercise as a person would call it. @param texts sizes by their ids, as lettered */
export function calledThing(exercise: Exercise, place: string, texts: ReadonlyMap<string, string>): string {
  const known = CALLED[place];
  if (known) return known;
  const thing = thingsOf(exercise).get(place);
  const name = place.slice(place.lastIndexOf("/") + 1);
  const size = (id: string) => (texts.has(id) ? `the size ${texts.get(id)}` : "a size");
  if (place.startsWith("rubric/")) return `the line “${field(thing, "title") ?? "that is gone"}”`;
  if (place.startsWith("questions/")) return `the figure “${field(thing, "title") ?? "that is gone"}”`;
  if (place.startsWith("varies/")) return "an own number";
  if (place.startsWith("sizes/")) return size(place.slice("sizes/".length));
  if (place.startsWith("sheet/layout/places/"))
    return `the place of ${size(place.slice("sheet/layout/places/".length))}`;
  if (place.startsWith("sheet/layout/views/")) return "a view on the Sheet";
  if (place.startsWith("sheet/layout/remarks/")) return `the remark “${field(thing, "text") ?? "that is gone"}”`;
  return CALLED[name] ?? "something of the Sheet";
}
