import { readFile, writeFile } from "node:fs/promises";
import { parseArgs } from "node:util";
import { z } from "zod";
import { readExercise } from "@/core/check/exercise/exercise";
import { checkMeasured, checkSubmission } from "@/core/check/check";
import { measurePart } from "@/core/check/given/measured";
import { measureFile } from "@/core/check/given/file";
import type { PartFile } from "@/core/check/given/part-file";
import { featuresOf } from "@/core/sizes/features";
import { nameOfSize, namesOfFaces } from "@/core/sizes/names";
import { proposeSizes } from "@/core/sizes/propose";
import { sizeText } from "@/core/sizes/size";
import { disturbed, rankSizes } from "@/core/sizes/sizes";
import { findCause } from "@/core/cause/find";
import { causeText } from "@/core/cause/sentences";
import { gradeReport } from "@/core/grade/grade";
import { readDxf } from "@/core/formats/dxf-read";
import { writeDxf } from "@/core/formats/dxf-write";
import { sketchSvg } from "@/core/formats/sketch-svg";
import { densityOf, readDocument, readPart } from "@/core/part/document";
import { findRegions } from "@/core/sketch/regions";
import { idsFor } from "@/core/sketch/edit/rewire";
import { emptySketch, SketchSchema } from "@/core/sketch/sketch";
import { solveSketch, type Diagnosis } from "@/core/sketch/solve";
import { dxfOf } from "@/core/formats/drawing-dxf";
import { svgOf } from "@/core/formats/drawing-svg";
import { drawSheet } from "@/core/sheet/sheet";
import { pdfOf } from "@/server/files/sheet-files";
import type { Outcome } from "@/core/units/refusal";
import { migrate } from "@/server/upkeep/migrate";
import { makeKey, makePerson } from "@/server/people/people";
import { closeDatabase } from "@/server/database";
import { checkAgain } from "@/server/tries/checks";
import { openNodeKernel } from "@/worker/kernel";

const USAGE =
  "usage: caliper props PART.json | solve SKETCH.json [--units in] | " +
  "check --exercise E.json --submission PART.json|.step|.stl|.3mf | " +
  "cause --exercise E.json --submission PART.json | sizes E.json | " +
  "sheet E.json --out SHEET.svg|.pdf|.dxf | " +
  "import DRAWING.dxf [--units in] | export SKETCH.json --out FILE.dxf|FILE.svg [--dxf R12] | " +
  "recheck --handout ID [--failed] | recheck --submission ID | " +
  "person add --name NAME --email EMAIL [--role administrator]";

/** Bad input: one line on standard error, exit 2. */
class BadInput extends Error {}

function must<T>(r: Outcome<T>): T {
  if (!r.ok) throw new BadInput(r.refusal.sentence);
  return r.value;
}

async function text(path: string | undefined, what: string): Promise<string> {
  if (!path) throw new BadInput(`${what} is missing. ${USAGE}`);
  try {
    return await readFile(path, "utf8");
  } catch {
    throw new BadInput(`${path} cannot be read.`);
  }
}

/** Where a verb writes what it found, and where it complains. */
interface Terminal {
  out(text: string): void;
  complain(line: string): void;
}
type Print = (value: unknown) => void;

const sketchFigures = (d: Diagnosis) => ({
  freedoms: d.freedoms,
  clusters: d.clusters,
  loose: d.loose,
  redundant: [...d.agreeing, ...d.surplus],
  conflicting: d.conflict,
});
const regionFigures = (d: Diagnosis) => {
  const { regions, gaps } = findRegions(d.sketch);
  return { regions: regions.map(({ name, area, depth, holes }) => ({ name, area, depth, holes: holes.length })), gaps };
};

async function props(print: Print, path: string | undefined): Promise<number> {
  const document = must(readPart(await text(path, "The part")));
  const kernel = await openNodeKernel();
  const { properties: p, built } = measurePart(kernel, document);
  const density = densityOf(document.material);
  print({
    name: document.name,
    ...(p && {
      bodies: p.bodies,
      valid: p.valid,
      closed: p.closed,
      volume: p.volume,
      area: p.area,
      mass: p.volume * density,
      centre: p.centre,
      box: p.box,
      moments: p.moments.map((m) => m * density),
    }),
    ...(!p && { bodies: 0 }),
    sketches: document.steps.flatMap((s) => {
      if (s.kind !== "sketch") return [];
      const d = built.sketches.get(s.id)?.diagnosis ?? must(solveSketch(s.sketch, document.units));
      return [{ id: s.id, ...sketchFigures(d), ...regionFigures(d) }];
    }),
    steps: built.steps.map((s) => ({ id: s.id, ...(s.refusal && { trouble: s.refusal.sentence }) })),
  });
  return built.steps.some((s) => s.refusal) ? 1 : 0;
}

async function solve(print: Print, path: string | undefined, units: string): Promise<number> {
  const sketch = must(readDocument(await text(path, "The sketch"), SketchSchema, "The sketch", "bad-sketch"));
  const d = must(solveSketch(sketch, unitOf(units)));
  print({ solved: d.solved, ...sketchFigures(d), ...(d.solved && regionFigures(d)), sketch: d.sketch });
  return d.solved ? 0 : 1;
}

/** A submission that is no part document, by the ending of its name; STL files count in the exercise's unit. */
async function fileFrom(path: string | undefined, unit: "mm" | "in"): Promise<PartFile | undefined> {
  const ending = /\.(step|stp|stl|3mf)$/i.exec(path ?? "")?.[1]?.toLowerCase();
  if (!path || !ending) return undefined;
  const head = { format: "caliper-file", version: 1, name: path } as const;
  if (ending === "step" || ending === "stp") return { ...head, kind: "step", text: await text(path, "--submission") };
  const data = await readFile(path, "base64").catch((e: Error) => {
    throw new BadInput(`--submission cannot be read: ${e.message}`);
  });
  return ending === "stl" ? { ...head, kind: "stl", unit, data } : { ...head, kind: "3mf", data };
}

async function check(
  print: Print,
  exercisePath: string | undefined,
  submissionPath: string | undefined,
): Promise<number> {
  const exercise = must(readExercise(await text(exercisePath, "--exercise")));
  const kernel = await openNodeKernel(),
    file = await fileFrom(submissionPath, exercise.units);
  const checked = file
    ? checkMeasured(kernel, exercise, () => measureFile(kernel, file))
    : checkSubmission(kernel, exercise, must(readPart(await text(submissionPath, "--submission"))));
  const { report } = must(checked);
  const grade = gradeReport(exercise, report);
  print({ report, grade });
  return report.evidence.every((e) => e.verdict === "met") ? 0 : 1;
}

/** What makes a part wrong, as far as it can be found, in sentences and as data. */
async function cause(
  print: Print,
  exercisePath: string | undefined,
  submissionPath: string | undefined,
): Promise<number> {
  const exercise = must(readExercise(await text(exercisePath, "--exercise")));
  const part = must(readPart(await text(submissionPath, "--submission")));
  const found = must(findCause(await openNodeKernel(), exercise, part));
  print({ sentence: causeText(found), cause: found });
  return found.found === "none" ? 0 : 1;
}

/** The sizes of an exercise, how they follow its reference's numbers, and what the print leaves open. */
async function sizes(print: Print, path: string | undefined, complain: (line: string) => void): Promise<number> {
  const exercise = must(readExercise(await text(path, "The exercise")));
  const kernel = await openNodeKernel();
  const { body, changes } = must(
    disturbed(kernel, exercise.reference, (n, of) => n % 10 === 0 && complain(`following numbers, ${n} of ${of}`)),
  );
  const lettering = { unit: exercise.units };
  const list = exercise.sizes ?? proposeSizes(body, changes).map((p) => p.size);
  const table = rankSizes(body, changes, list, lettering);
  const names = namesOfFaces(body, featuresOf(body, lettering));
  const follows = (row: readonly number[]) =>
    Object.fromEntries(row.flatMap((v, i) => (v === 0 ? [] : [[table.numbers[i]!.label, v]])));
  print({
    sizes: list.map((s) => ({
      id: s.id,
      text: sizeText(s, body.on, lettering),
      what: nameOfSize(s, names),
      follows: table.sizes.find((t) => t.id === s.id)?.rows.map(follows) ?? [],
    })),
    ways: table.ways,
    told: table.told,
    hidden: table.hidden.map((i) => table.numbers[i]!.label),
    repeating: table.repeating,
    lost: table.lost,
    volume_uncertain: table.uncertain,
  });
  return table.told < table.ways || table.repeating.length || table.lost.length ? 1 : 0;
}

async function sheet(print: Print, path: string | undefined, out: string | undefined): Promise<number> {
  const exercise = must(readExercise(await text(path, "The exercise")));
  if (!out) throw new BadInput(`--out is missing. ${USAGE}`);
  const { drawing, sheet: made } = must(drawSheet(await openNodeKernel(), exercise));
  const ending = /\.(pdf|dxf)$/i.exec(out)?.[1]?.toLowerCase();
  const plain = ending === "dxf" ? dxfOf(drawing) : svgOf(drawing);
  await writeFile(out, ending === "pdf" ? await pdfOf([drawing]) : plain);
  print({ out, scale: made.scale, dimensions: made.dimensions, unplaced: made.unplaced });
  return 0;
}

const unitOf = (units: string) => z.enum(["mm", "in"]).catch("mm").parse(units);

async function importDxf(print: Print, path: string | undefined, units: string): Promise<number> {
  const empty = emptySketch("top");
  const { curves, constraints, left, raised, unit } = must(
    readDxf(await text(path, "The drawing"), idsFor(empty), unitOf(units)),
  );
  print({ unit, left, raised, sketch: { ...empty, curves, constraints } });
  return 0;
}

async function exportSketch(
  print: Print,
  path: string | undefined,
  out: string | undefined,
  dxf: string,
): Promise<number> {
  const sketch = must(readDocument(await text(path, "The sketch"), SketchSchema, "The sketch", "bad-sketch"));
  if (!out || !/\.(dxf|svg)$/.test(out)) throw new BadInput(`--out names a .dxf or .svg file. ${USAGE}`);
  const d = must(solveSketch(sketch, "mm"));
  await writeFile(
    out,
    out.endsWith(".svg") ? sketchSvg(d.sketch) : writeDxf(d.sketch, z.enum(["R12", "2000"]).catch("2000").parse(dxf)),
  );
  print({ out, curves: sketch.curves.length });
  return 0;
}

/** Checks again what was handed in, as the button does; the grading process does the work. */
async function recheck(
  print: Print,
  values: { submission?: string; handout?: string; failed?: boolean },
): Promise<number> {
  const id = z.uuid();
  const { submission, handout } = values;
  if (submission && id.safeParse(submission).success) print({ queued: await checkAgain({ submission }) });
  else if (handout && id.safeParse(handout).success)
    print({ queued: await checkAgain({ handout, ...(values.failed && { only: "failed" as const }) }) });
  else throw new BadInput(`--submission or --handout names what is checked again. ${USAGE}`);
  await closeDatabase();
  return 0;
}

/** Makes somebody who looks after the server, or anybody else, and gives the way in for choosing a password. */
async function addPerson(print: Print, values: { name?: string; email?: string; role: string }): Promise<number> {
  const r = z
    .object({
      name: z.string().trim().min(1, "is missing").max(120),
      email: z.email("is no email address").max(200),
      role: z.enum(["administrator", "person"], "is administrator or person"),
    })
    .safeParse(values);
  if (!r.success) throw new BadInput(`--${String(r.error.issues[0]?.path[0])} ${r.error.issues[0]?.message}. ${USAGE}`);
  const { role, ...person } = r.data;
  await migrate();
  const made = await makePerson({ ...person, administrator: role === "administrator" });
  if (!made) throw new BadInput(`There is somebody with the address ${person.email} already.`);
  print({ person: made.id, way_in: `/key/${await makeKey(made.id, "first")}` });
  await closeDatabase();
  return 0;
}

async function perform(args: readonly string[], print: Print, complain: Terminal["complain"]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      exercise: { type: "string" },
      submission: { type: "string" },
      handout: { type: "string" },
      failed: { type: "boolean" },
      out: { type: "string" },
      units: { type: "string", default: "mm" },
      dxf: { type: "string", default: "2000" },
      name: { type: "string" },
      email: { type: "string" },
      role: { type: "string", default: "person" },
      help: { type: "boolean" },
    },
  });
  if (values.help) {
    complain(USAGE);
    return 0;
  }
  const [verb, path] = positionals;
  switch (verb) {
    case "props":
      return props(print, path);
    case "solve":
      return solve(print, path, values.units);
    case "check":
      return check(print, values.exercise, values.submission);
    case "cause":
      return cause(print, values.exercise, values.submission);
    case "sizes":
      return sizes(print, path, complain);
    case "sheet":
      return sheet(print, path, values.out);
    case "import":
      return importDxf(print, path, values.units);
    case "export":
      return exportSketch(print, path, values.out, values.dxf);
    case "person":
      if (path !== "add") throw new BadInput(USAGE);
      return addPerson(print, values);
    case "recheck":
      return recheck(print, values);
    default:
      throw new BadInput(USAGE);
  }
}

/**
 * Does what a line of the terminal asks. @returns 0 where all is well, 1 where something was found wanting, 2 where
 * the line cannot be done, with one line of complaint
 */
export async function runVerb(args: readonly string[], terminal: Terminal): Promise<0 | 1 | 2> {
  try {
    const code = await perform(
      args,
      (value) => terminal.out(`${JSON.stringify(value, null, 2)}\n`),
      (line) => terminal.complain(line),
    );
    return code === 0 ? 0 : 1;
  } catch (e) {
    const isKnown =
      e instanceof BadInput || (e instanceof Error && "code" in e && String(e.code).startsWith("ERR_PARSE_ARGS"));
    const message = e instanceof Error ? e.message : String(e);
    terminal.complain(isKnown ? message : `caliper failed: ${message}`);
    return 2;
  }
}
