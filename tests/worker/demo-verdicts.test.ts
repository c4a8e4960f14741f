import { afterAll, describe, expect, it } from "vitest";
import type { Grade } from "@/core/grade/grade";
import type { ShapeEvidence } from "@/core/check/kinds/shape/kind";
import type { Report } from "@/core/check/check";
import { closeDatabase, database, row } from "@/server/database";

afterAll(closeDatabase);

interface Row {
  state: string;
  grade: Grade | null;
  report: Report | null;
}
/** What the running worker made of a demo student's submission. */
async function result(
  student: string,
  number: string,
): Promise<{ grade: Grade; shape: ShapeEvidence; verdicts: string }> {
  let found: Row | undefined;
  for (let i = 0; i < 240; i++) {
    found = await row<Row>(
      `select c.state, r.grade, r.report from submissions s join checks c on c.submission_id = s.id
       join people p on p.id = s.person_id join handouts h on h.id = s.handout_id
       left join reports r on r.submission_id = s.id
       where p.name = $1 and h.exercise->>'number' = $2 order by s.attempt limit 1`,
      [student, number],
    );
    if (found?.state === "checked" || found?.state === "failed") break;
    await new Promise((r) => setTimeout(r, 250));
  }
  const { grade, report } = found!;
  return {
    grade: grade!,
    shape: report!.evidence.find((e) => e.check === "shape") as ShapeEvidence,
    verdicts: grade!.lines.map((l) => `${l.id} ${l.verdict} ${l.points}`).join(", "),
  };
}

/** Every rubric line of the demo's submissions, as the real worker graded it. */
describe("verdicts on the demo's submissions", () => {
  it.each([
    [
      "Barnaby Teal",
      "WS-08",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5",
      "same",
    ],
    [
      "Sunniva Rook",
      "WS-08",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5",
      "same",
    ],
    [
      "Ottoline Marsh",
      "WS-08",
      "sketches met 5, solid met 2, volume missed 2.5, mass missed 3.5, shape missed 5.5, sizes missed 4",
      "differs",
    ],
    [
      "Idris Fenwick",
      "WS-08",
      "sketches missed 4, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5",
      "same",
    ],
    [
      "Perpetua Lowe",
      "WS-08",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape missed 0, sizes met 5",
      "mirrored",
    ],
    [
      "Casimir Dunn",
      "WS-08",
      "sketches met 5, solid met 2, volume missed 0, mass missed 0, shape missed 0, sizes missed 0",
      "scaled",
    ],
    [
      "Barnaby Teal",
      "WS-05",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5",
      "same",
    ],
    [
      "Ottoline Marsh",
      "WS-05",
      "sketches met 5, solid met 2, volume missed 1.5, mass missed 2.5, shape missed 4.5, sizes missed 4",
      "differs",
    ],
    [
      "Barnaby Teal",
      "WS-04",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5",
      "same",
    ],
    [
      "Sunniva Rook",
      "WS-04",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5",
      "same",
    ],
    [
      "Idris Fenwick",
      "WS-04",
      "sketches met 5, solid met 2, volume missed 2.5, mass met 4, shape missed 5.5, sizes missed 4",
      "differs",
    ],
    [
      "Barnaby Teal",
      "WS-06",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5, answers met 2",
      "same",
    ],
    [
      "Ottoline Marsh",
      "WS-06",
      "sketches met 5, solid met 2, volume missed 0, mass missed 0, shape missed 0, sizes missed 4, answers missed 1.5",
      "differs",
    ],
    [
      "Idris Fenwick",
      "WS-02",
      "sketches met 5, solid met 2, volume missed 2.5, mass missed 3.5, shape missed 2, sizes missed 2",
      "differs",
    ],
    [
      "Sunniva Rook",
      "WS-03",
      "sketches met 5, solid met 2, volume met 3, mass met 4, shape met 6, sizes met 5",
      "same",
    ],
    [
      "Perpetua Lowe",
      "WS-03",
      "sketches met 5, solid met 2, volume missed 2.5, mass missed 3.5, shape missed 5.5, sizes missed 4",
      "differs",
    ],
  ])("%s on %s", async (student, number, verdicts, finding) => {
    const r = await result(student, number);
    expect(r.verdicts).toBe(verdicts);
    expect(r.shape.finding).toBe(finding);
  });

  it("the wrong hole is told by its volume and place", async () => {
    const { shape } = await result("Ottoline Marsh", "WS-08");
    const want = Math.PI * (100 - 81) * 14;
    expect(Math.abs(shape.missing[0]!.volume / want - 1)).toBeLessThan(1e-6);
    expect(shape.missing[0]!.centre.map((c) => Math.round(c))).toEqual([62, -18, 7]);
  });

  it("reports cannot be changed once written", async () => {
    await expect(database().query("update reports set kernel = 'other'")).rejects.toThrow(/never changed/);
  });
});
