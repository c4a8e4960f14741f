import { sizesOf } from "@/core/sizes/sizes";
import { openNodeKernel } from "@/worker/kernel";
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";
import { armExercise, footExercise } from "@/demo/exercises";
import { tripodFoot } from "@/demo/parts";
import { emptySketch } from "@/core/sketch/sketch";
import { runVerb } from "./verbs";

const folder = mkdtempSync(join(tmpdir(), "caliper-cli-"));
const file = (name: string, data: unknown) => {
  const path = join(folder, name);
  writeFileSync(path, typeof data === "string" ? data : JSON.stringify(data));
  return path;
};
/** What the verbs print, as far as it is looked at here. */
interface Told {
  readonly [figure: string]: unknown;
  readonly sketches: readonly object[];
  readonly grade: { readonly points: number };
}
async function caliper(...args: string[]) {
  let out = "",
    err = "";
  const code = await runVerb(args, { out: (text) => (out += text), complain: (line) => (err += `${line}\n`) });
  return { code, out: out ? (JSON.parse(out) as Told) : undefined, err };
}

describe("the terminal", () => {
  it("props prints figures of a part", async () => {
    const r = await caliper("props", file("foot.json", tripodFoot()));
    expect(r.code).toBe(0);
    const want = (96 * 14 + 14 * 50) * 52 - Math.PI * 81 * 14 - 2 * Math.PI * 4.5 ** 2 * 14;
    expect(Math.abs(Number(r.out!["volume"]) / want - 1)).toBeLessThan(1e-7);
    expect(Math.abs(Number(r.out!["mass"]) / (want * 0.00785) - 1)).toBeLessThan(1e-7);
    expect(r.out!.sketches).toHaveLength(3);
    expect(r.out!.sketches[0]).toMatchObject({ freedoms: 0, loose: [], conflicting: [] });
  });
  it("check finds faults with exit 1, none with exit 0", async () => {
    const exercise = file("e.json", footExercise());
    expect((await caliper("check", "--exercise", exercise, "--submission", file("good.json", tripodFoot()))).code).toBe(
      0,
    );
    const bad = await caliper(
      "check",
      "--exercise",
      exercise,
      "--submission",
      file("bad.json", tripodFoot({ baseHole: 20 })),
    );
    expect(bad.code).toBe(1);
    expect(bad.out!.grade.points).toBe(22.5);
  });
  it("sizes prints what the drawing needs, and what it leaves open", async () => {
    const proposed = await caliper("sizes", file("e.json", footExercise()));
    expect(proposed.code).toBe(0);
    expect(proposed.out).toMatchObject({ ways: 12, told: 12, hidden: [], repeating: [] });
    const some = (proposed.out!.sizes as { what: string }[]).map((s) => s.what);
    expect(some).toContain("the diameter of the 2 holes ⌀9");
    // one size too few, another twice
    const r = sizesOf(await openNodeKernel(), tripodFoot());
    if (!r.ok) throw new Error(r.refusal.sentence);
    const rest = r.value.sizes.slice(1);
    const sizes = [...rest, { ...rest[0]!, id: "again" }];
    const lacking = await caliper("sizes", file("lacking.json", { ...footExercise(), sizes }));
    expect(lacking.code).toBe(1);
    expect(lacking.out).toMatchObject({ told: 11, repeating: ["again"] });
    expect(lacking.out!.hidden).toHaveLength(1);
  });
  it("solve gives exact coordinates, or the conflict with exit 1", async () => {
    const s = {
      ...emptySketch("top"),
      curves: [{ id: "l1", kind: "line", start: [0, 0], end: [9, 1] }],
      constraints: [{ id: "k1", kind: "horizontal", of: ["l1"] }],
      dimensions: [{ id: "m1", kind: "length", of: ["l1"], value: "1 in" }],
    };
    const good = await caliper("solve", file("s.json", s));
    expect(good.code).toBe(0);
    expect(good.out).toMatchObject({ freedoms: 2, loose: ["l1"] });
    const bad = await caliper(
      "solve",
      file("s2.json", { ...s, constraints: [...s.constraints, { id: "k2", kind: "vertical", of: ["l1"] }] }),
    );
    expect(bad.code).toBe(1);
    expect(bad.out!["conflicting"]).toEqual(["k1", "k2"]);
  });
  it("sheet writes an SVG with measured sizes only", async () => {
    const out = join(folder, "arm.svg");
    const r = await caliper("sheet", file("arm.json", armExercise()), "--out", out);
    expect(r.code).toBe(0);
    const svg = readFileSync(out, "utf8");
    expect(svg).toMatch(/^<svg/);
    for (const size of ["5 1/2", "1 1/4", "3/8", "⌀1/2", "2× ⌀5/16"]) expect(svg).toContain(`>${size}</text>`);
  });
  it.each([
    ["no verb", []],
    ["an unknown verb", ["bake"]],
    ["a missing file", ["props", "/nowhere.json"]],
    ["no JSON", ["props", file("x.json", "{")]],
    ["another document", ["props", file("y.json", { format: "else" })]],
    ["an unknown option", ["props", "--wide"]],
  ])("%s is one line on standard error and exit 2", async (_, args) => {
    const r = await caliper(...args);
    expect(r.code).toBe(2);
    expect(r.out).toBeUndefined();
    expect(r.err.trim().split("\n")).toHaveLength(1);
  });
  it("from the terminal itself: the same line, on the same streams", () => {
    const r = spawnSync(process.execPath, ["--import", import.meta.resolve("tsx"), "src/cli/caliper.ts", "bake"], {
      cwd: fileURLToPath(new URL("../..", import.meta.url)),
      encoding: "utf8",
    });
    expect([r.status, r.stdout]).toEqual([2, ""]);
    expect(r.stderr).toMatch(/^usage: caliper/);
  });
});
