import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { readExercise, type Exercise } from "@/core/check/exercise/exercise";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { rows, transaction } from "../database";
import { createExercise, exercise, type Prepared } from "./exercises";
import { sheetFile } from "../files/sheet-files";

/** A package of exercises is a zip (docs/exercise-format.md): these and no others are read of it. */
const MANIFEST = "package.json";
const FORMAT = "caliper-package";
const EXERCISE = /^exercises\/[^/]{1,120}\.json$/;
/** What a package may hold: bytes packed, and unpacked. */
export const MOST_PACKAGE = 20_000_000;
const MOST_UNPACKED = 60_000_000;
const MOST_EXERCISES = 60;

const plain = (text: string) => text.replace(/[^\p{L}\p{N} ._-]/gu, "").trim();
const pretty = (x: unknown) => strToU8(JSON.stringify(x, null, 2));

/** Exercises with their references and Sheets, as one file. */
async function packageOf(list: readonly { document: Exercise; prepared: Prepared | null }[]) {
  const files: Record<string, Uint8Array> = {};
  const named: string[] = [];
  for (const [i, { document, prepared }] of list.entries()) {
    const name = plain(`${document.number} ${document.title}`) || `exercise ${i + 1}`;
    const free = named.includes(name) ? `${name} (${i + 1})` : name;
    named.push(free);
    files[`exercises/${free}.json`] = pretty(document);
    files[`references/${free}.json`] = pretty(document.reference);
    const drawing = prepared && "drawing" in prepared ? prepared.drawing : undefined;
    if (!drawing) continue;
    for (const kind of ["pdf", "svg"] as const)
      files[`sheets/${free}.${kind}`] = new Uint8Array(await (await sheetFile([drawing], kind, true)).arrayBuffer());
  }
  files[MANIFEST] = pretty({ format: FORMAT, version: 1, exercises: named });
  return zipSync(files) as Uint8Array<ArrayBuffer>;
}

export const packageOfExercise = async (id: string) => packageOf([await exercise(id)]);

/** All exercises of a course, in the order of their numbers. */
export const packageOfCourse = async (courseId: string) =>
  packageOf(
    await rows<{ document: Exercise; prepared: Prepared | null }>(
      `select document, prepared from exercises where course_id = $1
       order by document->>'number', created_at limit ${MOST_EXERCISES}`,
      [courseId],
    ),
  );

/** Reads a package, or a single exercise document. Every fault is a sentence; nothing of a bad one is taken. */
export function readPackage(bytes: Uint8Array): Outcome<Exercise[]> {
  if (bytes.length > MOST_PACKAGE) return refuse("too-large", "This package is larger than 20 MB.");
  // a zip begins with PK, a document with a brace
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) {
    const alone = readExercise(strFromU8(bytes));
    return alone.ok ? done([alone.value]) : alone;
  }
  let files: Record<string, Uint8Array>;
  try {
    let unpacked = 0,
      count = 0;
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        const isWanted = name === MANIFEST || EXERCISE.test(name);
        if (!isWanted) return false;
        unpacked += originalSize;
        count++;
        if (unpacked > MOST_UNPACKED || count > MOST_EXERCISES + 1) throw new RangeError("too much");
        return true;
      },
    });
  } catch (e) {
    if (e instanceof RangeError)
      return refuse("too-large", `This package holds more than ${MOST_EXERCISES} exercises, or more than 60 MB.`);
    return refuse("bad-zip", "This file is damaged: it cannot be unpacked.");
  }
  const manifest = files[MANIFEST] && parsed(files[MANIFEST]);
  if (!isManifest(manifest))
    return refuse("no-package", "This is no package of exercises: its package.json is missing or says something else.");
  const names = Object.keys(files).filter((n) => EXERCISE.test(n));
  if (!names.length) return refuse("empty", "There is no exercise in this package.");
  const list: Exercise[] = [];
  for (const name of names.sort()) {
    const r = readExercise(strFromU8(files[name]!));
    if (!r.ok) return refuse(r.refusal.code, `${name.slice("exercises/".length)}: ${r.refusal.sentence}`);
    list.push(r.value);
  }
  return done(list);
}

function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(strFromU8(bytes));
  } catch {
    return undefined;
  }
}
const isManifest = (x: unknown): boolean =>
  typeof x === "object" && x !== null && "format" in x && x.format === FORMAT && "version" in x && x.version === 1;

/** Takes the exercises of a package into a course, all of them or none. @returns their ids */
export async function takePackage(courseId: string, bytes: Uint8Array): Promise<Outcome<string[]>> {
  const list = readPackage(bytes);
  if (!list.ok) return list;
  return transaction(async (client) => {
    const made: string[] = [];
    for (const document of list.value) made.push(await createExercise(courseId, document, client));
    return done(made);
  });
}
