import { execFileSync } from "node:child_process";
import { existsSync, readFileSync, statSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";

/** What the house promises of its own code, beside the arrows that lint watches. */
const ROOT = fileURLToPath(new URL("..", import.meta.url));
const SRC = join(ROOT, "src");
const listed = execFileSync("git", ["ls-files", "-co", "--exclude-standard", "src", "tests", "scripts"], {
  cwd: ROOT,
  encoding: "utf8",
});
const files = listed.split("\n").filter((f) => /\.(tsx?|mjs)$/.test(f) && existsSync(join(ROOT, f)));
const code = files.filter((f) => f.startsWith("src/"));
const textOf = (file: string) => readFileSync(join(ROOT, file), "utf8");

const MOST_COLUMNS = 120;
const MOST_LINES = 350;

describe("what a reader meets", () => {
  it("no line is longer than the page", () => {
    const long = files.flatMap((f) =>
      textOf(f)
        .split("\n")
        .flatMap((line, i) => ([...line].length > MOST_COLUMNS ? [`${f}:${i + 1}`] : [])),
    );
    expect(long).toEqual([]);
  });
  it("every tolerance has a name, in its room's file", () => {
    const bare = /^(?!\s*(\*|\/\/|\/\*)).*(?<![\w."'])\d[\d.]*e-\d+/;
    const free = /tolerance\.ts$|\.test\.tsx?$|\/testing\/|^src\/(cli\/bench|demo)\/|formats\/dxf-units\.ts$/;
    const found = code
      .filter((f) => !free.test(f))
      .flatMap((f) =>
        textOf(f)
          .split("\n")
          .flatMap((line, i) => (bare.test(line.split(" // ")[0] ?? "") ? [`${f}:${i + 1}`] : [])),
      );
    expect(found).toEqual([]);
  });
  it("text from outside is of one schema", () => {
    const own = /\.test\.tsx?$|\/testing\/|^src\/(cli|core\/units\/text\.ts|server\/environment\.ts)/;
    expect(code.filter((f) => !own.test(f) && textOf(f).includes("z.string()"))).toEqual([]);
  });
  it("no file is too long to be read in one go", () => {
    const long = code.filter((f) => textOf(f).split("\n").length - 1 > MOST_LINES);
    expect(long).toEqual([]);
  });
});

/** Doors that stand open on purpose: to come in, to be let in, and whether anybody is there. */
const OPEN = new Set([
  ...["signIn", "signInDemo", "signOut", "beFirst", "askForKey", "choosePassword", "acceptAsNew"],
  ...["src/app/page.tsx", "src/app/forgot/page.tsx", "src/app/key/[token]/page.tsx", "src/app/join/[token]/page.tsx"],
  "src/app/api/health/route.ts",
]);
const ASKS = /\b(allowed|administrating|signedIn|permit|endpoint|memberEndpoint)\b[(<]/;

describe("what can be asked of the server", () => {
  const entries = code.filter((f) => /^src\/app\/.*(page\.tsx|route\.ts)$/.test(f) && !OPEN.has(f));
  it.each(entries)("%s asks who is there and what they may", (file) => expect(textOf(file)).toMatch(ASKS));

  const actions = code
    .filter((f) => /^src\/app\/[\w-]*actions\.ts$/.test(f))
    .flatMap((f) =>
      textOf(f)
        .split(/^export async function /m)
        .slice(1),
    )
    .map((text) => [/^\w+/.exec(text)![0], text] as const)
    .filter(([name]) => !OPEN.has(name));
  it.each(actions)("the action %s asks who is there and what they may", (_, text) => expect(text).toMatch(ASKS));
});

describe("what a component asks of the store", () => {
  it("is never made anew by the asking, or it is drawn for ever", () => {
    const fresh = /store\(\(s\) => [^)\n]*(\?\? [[{]|\.map\(|\.filter\(|\.flatMap\()/;
    expect(code.filter((f) => f.startsWith("src/ui/") && fresh.test(textOf(f)))).toEqual([]);
  });
});

/** The files a file imports, for what they do or for their types alone. */
function importsOf(file: string, withTypes: boolean): string[] {
  const all = textOf(file);
  const text = withTypes ? all : all.replace(/^import type [^;]*;/gm, "");
  const found = [...text.matchAll(/^(?:import|export)\s+(?:type\s+)?(\{[^}]*\}|[^"';]*?)\s*from\s+"([^"]+)"/gm)];
  return found.flatMap(([, names = "", from = ""]) => {
    const isOfTypes =
      names.startsWith("{") &&
      names
        .slice(1, -1)
        .split(",")
        .every((n) => !n.trim() || /^type\s/.test(n.trim()));
    if (isOfTypes && !withTypes) return [];
    const base = from.startsWith("@/")
      ? join(SRC, from.slice(2))
      : from.startsWith(".")
        ? join(ROOT, dirname(file), from)
        : undefined;
    if (!base) return [];
    const path = [`${base}.ts`, `${base}.tsx`, base, join(base, "index.ts")].find(
      (p) => existsSync(p) && statSync(p).isFile(),
    );
    return path ? [relative(ROOT, path)] : [];
  });
}

type Graph = ReadonlyMap<string, readonly string[]>;
const plain = code.filter((f) => !f.includes(".test."));
const graph: Graph = new Map(plain.map((f) => [f, importsOf(f, true)]));
/** Types are gone when it runs. */
const whenRun: Graph = new Map(plain.map((f) => [f, importsOf(f, false)]));

/** Groups of files that import each other in a circle (Tarjan's strongly connected components). */
function circles(): string[][] {
  const index = new Map<string, number>(),
    low = new Map<string, number>(),
    stack: string[] = [],
    found: string[][] = [];
  const visit = (f: string): void => {
    index.set(f, index.size);
    low.set(f, index.get(f)!);
    stack.push(f);
    for (const next of graph.get(f) ?? []) {
      if (!index.has(next)) {
        visit(next);
        low.set(f, Math.min(low.get(f)!, low.get(next)!));
      } else if (stack.includes(next)) low.set(f, Math.min(low.get(f)!, index.get(next)!));
    }
    if (low.get(f) !== index.get(f)) return;
    const group = stack.splice(stack.indexOf(f));
    if (group.length > 1) found.push(group.sort());
  };
  for (const f of graph.keys()) if (!index.has(f)) visit(f);
  return found;
}

describe("what a file gives out", () => {
  it("is asked for by somebody else", () => {
    // the framework's settings ask too
    const all = [...files, "next.config.ts"].map((f) => [f, new Set(textOf(f).match(/[A-Za-z_$][\w$]*/g))] as const);
    const asked = new Map<string, number>();
    for (const [, words] of all) for (const w of words) asked.set(w, (asked.get(w) ?? 0) + 1);
    // what the framework asks for by name
    const isEntry = (f: string) =>
      /\.test\.|^src\/app\/(.*\/)?(page|route|layout|error|not-found|[\w-]*actions)\.tsx?$/.test(f);
    const given = code
      .filter((f) => !isEntry(f))
      .flatMap((f) =>
        [...textOf(f).matchAll(/^export (?:async )?(?:const|function\*?|class|interface|type|enum|let) (\w+)/gm)].map(
          (m) => [f, m[1]!] as const,
        ),
      );
    expect(given.filter(([, name]) => asked.get(name) === 1).map(([f, name]) => `${f}: ${name}`)).toEqual([]);
  });
});

describe("which file stands on which", () => {
  it("no circle of imports, nor of types, except inside one kind's folder", () => {
    const inOneFolder = (group: readonly string[]) =>
      new Set(group.map((f) => dirname(f))).size === 1 && /\/(steps|kinds)\/[^/]+\//.test(group[0]!);
    expect(circles().filter((g) => !inOneFolder(g))).toEqual([]);
  });
  it("validating a document loads no kernel", () => {
    const seen = new Set<string>();
    const reach = (f: string): void => {
      if (seen.has(f)) return;
      seen.add(f);
      (whenRun.get(f) ?? []).forEach(reach);
    };
    reach("src/core/part/document.ts");
    reach("src/core/part/commands.ts");
    expect([...seen].filter((f) => f.startsWith("src/core/kernel/"))).toEqual([]);
    expect(seen.size).toBeGreaterThan(30);
  });
});
