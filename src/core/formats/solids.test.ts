import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, unzipSync } from "fflate";
import { beforeAll, describe, expect, it } from "vitest";
import { pack, readStep, stepString, unpack, writeStep } from "@/core/kernel/exchange";
import { meshOf } from "@/core/kernel/mesh";
import { modelOf } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { rebuild } from "@/core/part/rebuild";
import { SOLIDS } from "@/core/part/testing/solids";
import { openNodeKernel } from "@/worker/kernel";
import { stlOf } from "./stl";
import { threeMfOf } from "./three-mf";
import { IS_LONG } from "@/core/part/testing/chosen";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const SOME = [
  "flange",
  "countersunk hole",
  "rounded box hollowed out",
  "torus",
  "posts with rounded rims, patterned together",
  "pulley",
];
const bodyOf = (name: string): Solid => rebuild(kernel, SOLIDS.find((s) => s.name === name)!.ways[0]!).body!;

/** Volume inside facets, mm³, by the divergence theorem. */
function facetVolume(points: ArrayLike<number>, triangles: ArrayLike<number>): number {
  let v = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]! * 3, triangles[i + 1]! * 3, triangles[i + 2]! * 3];
    const x = (k: number, j: number) => points[k + j]!;
    v +=
      (x(a, 0) * (x(b, 1) * x(c, 2) - x(b, 2) * x(c, 1)) -
        x(a, 1) * (x(b, 0) * x(c, 2) - x(b, 2) * x(c, 0)) +
        x(a, 2) * (x(b, 0) * x(c, 1) - x(b, 1) * x(c, 0))) /
      6;
  }
  return v;
}

describe("STEP", () => {
  it.each(SOME)("%s comes back with the same volume, area and faces", (name) => {
    const body = bodyOf(name),
      back = readStep(kernel, writeStep(kernel, body, name));
    const [p, q] = [propertiesOf(kernel, body), propertiesOf(kernel, back)];
    expect(Math.abs(q.volume - p.volume)).toBeLessThan(1e-7 * p.volume);
    expect(Math.abs(q.area - p.area)).toBeLessThan(1e-7 * p.area);
    expect(back.names.length).toBe(body.names.length);
    kernel.release(body.shape, back.shape);
  });
  it("carries name and colours, and is the same each time", () => {
    const body = bodyOf("flange"),
      write = () =>
        writeStep(kernel, body, "Flange of the mast", { body: "#ff0000", faces: new Map([[0, "#00ff00"]]) });
    const text = write();
    expect(text).toContain("'Flange of the mast'");
    expect(text.match(/COLOUR_RGB\('',1\.,0\.,0\.\)|DRAUGHTING_PRE_DEFINED_COLOUR\('red'\)/)).not.toBeNull();
    expect(text.match(/COLOUR_RGB\('',0\.,1\.,0\.\)|DRAUGHTING_PRE_DEFINED_COLOUR\('green'\)/)).not.toBeNull();
    expect(write().length).toBe(text.length);
    kernel.release(body.shape);
  });
  it("writes letters outside ASCII as the standard says, and names the part and us in its head", () => {
    expect(stepString("Halter 'A'")).toBe("Halter ''A''");
    expect(stepString("Träger ⌀10")).toBe("Tr\\X2\\00E4\\X0\\ger \\X2\\2300\\X0\\10");
    expect(stepString("a\\b 𝄞")).toBe("a\\\\b \\X4\\0001D11E\\X0\\");
    const body = bodyOf("flange");
    const text = writeStep(kernel, body, "Träger");
    expect(text).toMatch(/^[\x00-\x7f]*$/);
    expect(text).toMatch(/FILE_NAME\('Tr\\X2\\00E4\\X0\\ger',.*'Rusty Caliper'/);
    expect(text).toContain("PRODUCT('Tr\\X2\\00E4\\X0\\ger'");
    expect(readStep(kernel, text).names.length).toBe(body.names.length);
    kernel.release(body.shape);
  });
  it("text that is no STEP is refused", () => expect(() => readStep(kernel, "not a drawing")).toThrow("no STEP file"));
});

/** Edges of a net that are not shared by two facets the two ways round, and facets that are none. */
function openEdges(points: readonly number[]): number {
  const key = (i: number) => points.slice(3 * i, 3 * i + 3).join();
  const runs = new Map<string, number>();
  let none = 0;
  for (let i = 0; i < points.length / 3; i += 3) {
    const [a, b, c] = [key(i), key(i + 1), key(i + 2)];
    if (a === b || b === c || c === a) none++;
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      runs.set(`${p}|${q}`, (runs.get(`${p}|${q}`) ?? 0) + 1);
      runs.set(`${q}|${p}`, (runs.get(`${q}|${p}`) ?? 0) - 1);
    }
  }
  return none + [...runs.values()].filter((n) => n !== 0).length;
}

it.each(SOLIDS.map((s) => s.name))("facets of %s close without a gap", (name) => {
  const body = bodyOf(name);
  const stl = stlOf(meshOf(kernel, body, 0.1, 0.25), name);
  const view = new DataView(stl.buffer);
  const points: number[] = [];
  for (let k = 0; k < view.getUint32(80, true); k++)
    for (let i = 3; i < 12; i++) points.push(view.getFloat32(84 + 50 * k + 4 * i, true));
  expect(openEdges(points)).toBe(0);
  kernel.release(body.shape);
});

describe("facets", () => {
  it.each(IS_LONG ? SOLIDS.map((s) => s.name) : SOME)(
    "%s: admesh finds nothing to mend, and volumes come to the exact one as the net gets finer",
    (name) => {
      const body = bodyOf(name),
        exact = propertiesOf(kernel, body).volume,
        folder = mkdtempSync(join(tmpdir(), "caliper-"));
      let last = Infinity;
      for (const [deflection, angle] of [
        [0.5, 0.6],
        [0.1, 0.25],
        [0.02, 0.1],
      ] as const) {
        kernel.library.BRepTools.Clean(body.shape, true);
        const mesh = meshOf(kernel, body, deflection, angle);
        const file = join(folder, "part.stl"),
          stl = stlOf(mesh, name);
        writeFileSync(file, stl);
        const told = execFileSync("admesh", [file], { encoding: "utf8" });
        expect(told, told).toMatch(/All facets connected\s*:\s*\d+|Total disconnected facets\s*:\s*0\s+0/);
        expect(Number(/Total disconnected facets\s*:\s*(\d+)/.exec(told)![1])).toBe(0);
        for (const what of [
          "Degenerate facets",
          "Edges fixed",
          "Facets removed",
          "Facets added",
          "Facets reversed",
          "Backwards edges",
        ])
          expect(Number(new RegExp(`${what}\\s*:\\s*(\\d+)`).exec(told)![1]), what).toBe(0);
        const view = new DataView(stl.buffer),
          n = view.getUint32(80, true),
          points: number[] = [];
        for (let k = 0; k < n; k++)
          for (let i = 3; i < 12; i++) points.push(view.getFloat32(84 + 50 * k + 4 * i, true));
        const error = Math.abs(facetVolume(points, points.map((_, i) => i).slice(0, n * 3)) - exact) / exact;
        expect(error).toBeLessThan(Math.max(last / 2, 1e-6));
        last = error;
        const zip = unzipSync(threeMfOf(mesh, name)),
          model = strFromU8(zip["3D/3dmodel.model"]!);
        const numbers = (tag: string, keys: string[]) =>
          [...model.matchAll(new RegExp(`<${tag} ([^/]*)/>`, "g"))].flatMap((m) =>
            keys.map((k) => Number(new RegExp(`${k}="([^"]*)"`).exec(m[1]!)![1])),
          );
        expect(
          Math.abs(facetVolume(numbers("vertex", ["x", "y", "z"]), numbers("triangle", ["v1", "v2", "v3"])) - exact) /
            exact,
        ).toBeLessThan(error + 1e-5);
      }
      expect(last).toBeLessThan(5e-3);
      rmSync(folder, { recursive: true });
      kernel.release(body.shape);
    },
  );
});

describe("names travel with packed bodies", () => {
  it.each(SOME)("%s", (name) => {
    const body = bodyOf(name),
      back = unpack(kernel, JSON.parse(JSON.stringify(pack(kernel, body))) as never);
    const [a, b] = [modelOf(kernel, body), modelOf(kernel, back)];
    expect(b.faces.map((f) => [f.key, f.area.toFixed(6)])).toEqual(a.faces.map((f) => [f.key, f.area.toFixed(6)]));
    expect(b.edges.map((e) => e.key)).toEqual(a.edges.map((e) => e.key));
    expect(propertiesOf(kernel, back).volume).toBeCloseTo(propertiesOf(kernel, body).volume, 6);
    kernel.release(body.shape, back.shape);
  });
});
