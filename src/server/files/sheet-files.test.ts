import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import { referenceExercises } from "@/cli/bench/reference-parts";
import { textLength, type Drawing } from "@/core/formats/drawing";
import { dxfOf } from "@/core/formats/drawing-dxf";
import { svgOf } from "@/core/formats/drawing-svg";
import { drawSheet } from "@/core/sheet/sheet";
import { openNodeKernel } from "@/worker/kernel";
import { classPdf } from "../marking/results-file";
import { pdfOf } from "./sheet-files";

const folder = mkdtempSync(join(tmpdir(), "caliper-sheets-"));
const has = (program: string, ...args: string[]) => spawnSync(program, args, { stdio: "ignore" }).status === 0;
const PYTHON = "/usr/bin/python3";

const drawings: Drawing[] = [];
beforeAll(async () => {
  const kernel = await openNodeKernel();
  for (const name of ["tripod-foot", "vane-arm", "anemometer-hub"]) {
    const r = drawSheet(kernel, referenceExercises().find(([n]) => n === name)![1]);
    if (!r.ok) throw new Error(r.refusal.sentence);
    drawings.push(r.value.drawing);
  }
});
const numbers = (d: Drawing) =>
  d.groups
    .filter((g) => g.role === "dimension")
    .flatMap((g) => g.marks.flatMap((m) => (m.mark === "text" ? [m.text] : [])));

describe("a Sheet as PDF", () => {
  it("has a page of the right size for each, and is put together quickly", async () => {
    const start = process.cpuUsage();
    const text = (await pdfOf(drawings)).toString("latin1");
    expect(process.cpuUsage(start).user / 1000).toBeLessThan(3000);
    const boxes = [...text.matchAll(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)].map((m) => [Number(m[1]), Number(m[2])]);
    expect(boxes).toHaveLength(3);
    boxes.forEach(([w, h], i) => {
      expect(w).toBeCloseTo((drawings[i]!.width * 72) / 25.4, 1);
      expect(h).toBeCloseTo((drawings[i]!.height * 72) / 25.4, 1);
    });
  });
  it.skipIf(!has("qpdf", "--version"))("passes a check of its structure", async () => {
    const path = join(folder, "sheets.pdf");
    writeFileSync(path, await pdfOf(drawings));
    expect(execFileSync("qpdf", ["--check", path], { encoding: "utf8" })).toMatch(
      /No syntax or stream encoding errors/,
    );
  });
  it.skipIf(!has("pdftotext", "-v"))("holds its numbers as text, signs too", async () => {
    for (const [i, d] of drawings.entries()) {
      const path = join(folder, `sheet-${i}.pdf`);
      writeFileSync(path, await pdfOf([d]));
      const found = execFileSync("pdftotext", ["-layout", path, "-"], { encoding: "utf8" }).replace(/\s+/g, "");
      for (const n of numbers(d)) expect(found).toContain(n.replace(/\s+/g, ""));
    }
  });
});

/** How many dots of a page are dark, as another program paints it. */
function inkOn(pdf: Buffer): number {
  const path = join(folder, "ink.pdf");
  writeFileSync(path, pdf);
  const picture = execFileSync("pdftoppm", ["-r", "60", "-gray", "-f", "1", "-l", "1", path]);
  // P5 width height 255, then a byte a dot
  const head = /^P5\s+\d+\s+\d+\s+\d+\s/.exec(picture.toString("latin1"))![0].length;
  return picture.subarray(head).filter((dot) => dot < 140).length;
}

describe.skipIf(!has("pdftoppm", "-v"))("lettering on paper", () => {
  it("is painted, not only there to be searched", async () => {
    const [d] = drawings as [Drawing];
    const isText = (m: { mark: string }) => m.mark === "text";
    const groups = d.groups.map((g) => ({ ...g, marks: g.marks.filter(isText) }));
    expect(inkOn(await pdfOf([{ ...d, groups }]))).toBeGreaterThan(300);
  });
  it("is painted on results too", async () => {
    const student = { id: "p", name: "Linnea Holt", email: "", group: null, average: null, cells: {} };
    expect(inkOn(await classPdf("Part Modelling 1", { handouts: [], students: [student] }))).toBeGreaterThan(100);
  });
});

describe("a Sheet as DXF", () => {
  it("keeps kinds of lines on layers of their own", () => {
    const text = dxfOf(drawings[2]!);
    for (const layer of ["OUTLINE", "CENTRE", "HATCH", "DIMENSION", "FRAME", "TEXT"])
      expect(text).toContain(`\n8\n${layer}\n`);
    expect(text).toContain("%%c");
  });
  it.skipIf(!has(PYTHON, "-c", "import ezdxf"))("is read by another program without an error", () => {
    for (const [i, d] of drawings.entries()) {
      const path = join(folder, `sheet-${i}.dxf`);
      writeFileSync(path, dxfOf(d));
      const script = [
        "import ezdxf, sys",
        "d = ezdxf.readfile(sys.argv[1])",
        "m = d.modelspace()",
        "q = [x for x in m.query('DIMENSION') if x.dimtype == 0]",
        "told = lambda x: x.get_measurement() * d.dimstyles.get(x.dxf.dimstyle).dxf.dimlfac",
        "number = lambda x: float(''.join(c for c in x.dxf.text.split('×')[-1] if c in '0123456789.') or 'nan')",
        "off = [x for x in q if x.dxf.text.replace('.', '').isdigit() and abs(told(x) - number(x)) > 0.006]",
        "print(len(d.audit().errors), len(m), len(m.query('DIMENSION')), len(off))",
      ].join("\n");
      const [errors, entities, dimensions, off] = execFileSync(PYTHON, ["-c", script, path], { encoding: "utf8" })
        .trim()
        .split(" ")
        .map(Number);
      expect(errors).toBe(0);
      expect(entities).toBeGreaterThan(50);
      expect(dimensions).toBeGreaterThan(1);
      // what it measures there is what is lettered, at whatever scale the view is drawn
      expect(off).toBe(0);
    }
  });
});

describe("a Sheet as SVG", () => {
  it("holds every colour itself", () => {
    const svg = svgOf(drawings[0]!);
    expect(svg).not.toContain("var(");
    for (const m of svg.matchAll(/<path [^>]*class="pen-[^>]*>/g)) expect(m[0]).toMatch(/stroke="#[0-9a-f]{6}"/);
  });
  it.skipIf(!has("rsvg-convert", "--version"))("is drawn elsewhere in its own colours", () => {
    const path = join(folder, "sheet.svg");
    writeFileSync(path, svgOf(drawings[0]!));
    const png = join(folder, "sheet.png");
    execFileSync("rsvg-convert", ["-w", "600", "-o", png, path]);
    // mostly paper: black shapes would pack far worse or far better
    expect(readFileSync(png).length).toBeGreaterThan(5_000);
  });
});

it("lettering is as long as it is said to be", () =>
  expect(textLength("12.5", 3.5)).toBeCloseTo(4 * 3.5 * (0.65 / 0.75), 9));
