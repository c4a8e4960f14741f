import fc from "fast-check";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import type { Gradebook } from "./gradebook";
import { gradebookCsv } from "./gradebook-files";

const book = (name: string, title = "Tripod foot"): Gradebook => ({
  handouts: [{ id: "h", number: "WS-08", title, dueAt: "2026-11-01T00:00:00Z", of: 25, weight: 1 }],
  students: [
    {
      id: "p",
      name,
      email: "a@b.example",
      group: null,
      average: 0.905,
      cells: {
        h: {
          handout: "h",
          state: "returned",
          points: 22.5,
          of: 25,
          submission: "s",
          attempts: 2,
          isLate: true,
          picture: null,
        },
      },
    },
  ],
});
const readBack = (csv: string) => Papa.parse<string[]>(csv.replace(/^\uFEFF/, ""), { newline: "\r\n" }).data;

describe("the gradebook as comma separated values", () => {
  it("is read back as it was", () => {
    const [head, row] = readBack(gradebookCsv(book("Linnea Holt")));
    expect(head).toEqual([
      "Student",
      "Email",
      "Group",
      "WS-08 Tripod foot (of 25)",
      "WS-08 Tripod foot: state",
      "Average (%)",
    ]);
    expect(row).toEqual(["Linnea Holt", "a@b.example", "", "22.5", "returned, late", "90.5"]);
  });
  it("points below nought stay numbers", () => {
    const { students, ...rest } = book("Linnea Holt"),
      [first] = students;
    const cell = { ...first!.cells["h"]!, points: -1.5 };
    const [, row] = readBack(gradebookCsv({ ...rest, students: [{ ...first!, cells: { h: cell } }] }));
    expect(row![3]).toBe("-1.5");
  });
  it.each(["=1+2", "+SUM(A1)", "-1", "@cmd", "\tx", "\rx"])("lets %j run nowhere", (name) => {
    const cell = readBack(gradebookCsv(book(name)))[1]![0]!;
    expect(cell).toBe(`'${name}`);
  });
  it("keeps quotes, commas, lines and letters of any kind", () => {
    const texts = fc.string({ minLength: 1, maxLength: 30, unit: "binary" });
    fc.assert(
      fc.property(texts, texts, (name, title) => {
        const [head, row] = readBack(gradebookCsv(book(name, title)));
        expect(row![0]!.replace(/^'(?=[=+\-@\t\r])/, "")).toBe(name);
        expect(head![3]).toBe(`${`WS-08 ${title}`.trim()} (of 25)`);
      }),
    );
  });
});
