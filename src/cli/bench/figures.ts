import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { cpus } from "node:os";
import { join } from "node:path";

/** The figures kept in the repository: one table, a row a figure, with the day and the machine it is from. */
const FILE = join(process.cwd(), "docs/figures.md");

interface Kept {
  readonly value: string;
  readonly unit: string;
  readonly from: string;
}
const keyOf = (...parts: string[]) => parts.join(" | ");

function read(): Map<string, Kept> {
  if (!existsSync(FILE)) return new Map();
  const rows = readFileSync(FILE, "utf8").matchAll(/^\| (.+?) \| (.+?) \| (.+?) \| +(\S+) (\S+) \| (.+?) +\|$/gm);
  return new Map(
    [...rows].map(([, bench, name, metric, value, unit, from]) => [
      keyOf(bench!, name!, metric!),
      { value: value!, unit: unit!, from: from! },
    ]),
  );
}

const kept = read();
const fresh = new Map<string, Kept>();

/** Says one figure as a JSON line, beside what it was when figures were kept last. */
export function figure(bench: string, name: string, metric: string, value: number, unit: string): void {
  const rounded = Number(value.toPrecision(4)),
    key = keyOf(bench, name, metric),
    before = kept.get(key);
  const from = `${new Date().toISOString().slice(0, 10)}, ${cpus()[0]?.model ?? "?"}, Node ${process.versions.node}`;
  fresh.set(key, { value: String(rounded), unit, from });
  const line = { bench, case: name, metric, value: rounded, unit, ...(before && { was: Number(before.value) }) };
  process.stdout.write(`${JSON.stringify(line)}\n`);
}

/** Writes what was measured over what was kept; figures of benches that did not run stay. */
export function keepFigures(): void {
  const rows = [...new Map([...kept, ...fresh])].map(
    ([key, { value, unit, from }]) => `| ${key} | ${value} ${unit} | ${from} |`,
  );
  const text = [
    "# Figures",
    "",
    "Written by `npm run bench -- --keep`; every bench says what a figure `was` here. Medians of one run, on a machine",
    "with other work: compare figures of one run with each other before comparing runs.",
    "",
    "| bench | case | metric | value | from |",
    "| ----- | ---- | ------ | ----- | ---- |",
    ...rows,
    "",
  ];
  writeFileSync(FILE, text.join("\n"));
}
