import { describe, expect, it } from "vitest";
import Papa from "papaparse";
import { readRoster } from "./roster";

const read = (csv: string) => readRoster(Papa.parse<string[]>(csv, { skipEmptyLines: "greedy" }).data);

describe("a roster", () => {
  it("finds its columns by their headings, in any order, with or without roles and groups", () => {
    expect(read("Email,Group,Name\nA.Berg@x.example,2b,Åsa Berg\n").lines).toEqual([
      { name: "Åsa Berg", email: "a.berg@x.example", role: "student", group: "2b" },
    ]);
    expect(read("Surname;First name;E-mail;Role\nBerg;Åsa;a@x.example;Assistant\n").lines).toEqual([
      { name: "Åsa Berg", email: "a@x.example", role: "assistant" },
    ]);
  });
  it("keeps a comma within quotes, and tidies spaces", () => {
    expect(read('name,email\n"Grün,  Jörg", j@x.example \n').lines).toEqual([
      { name: "Grün, Jörg", email: "j@x.example", role: "student" },
    ]);
  });
  it("tells each row that cannot be taken, and takes the others", () => {
    const r = read(
      "name,email,role\nA,a@x.example,\nB,not an address,\nC,a@X.example,\n,d@x.example,\nE,,\nF,f@x.example,king\n",
    );
    expect(r.lines.map((l) => l.name)).toEqual(["A"]);
    expect(r.faults).toEqual([
      { row: 3, sentence: "“not an address” is no email address." },
      { row: 4, sentence: "a@x.example stands in row 2 already." },
      { row: 5, sentence: "d@x.example has no name." },
      { row: 6, sentence: "E has no email address." },
      { row: 7, sentence: "“king” is no role: student, assistant or instructor." },
    ]);
  });
  it.each([
    ["without headings", "A,a@x.example\nB,b@x.example"],
    ["that is empty", ""],
    ["of headings only", "name,email\n"],
    ["of too many", `name,email\n${"A,a@x.example\n".repeat(2001)}`],
  ])("%s is refused with a sentence", (_, csv) => {
    const r = read(csv);
    expect(r.lines).toEqual([]);
    expect(r.faults[0]!.sentence).toMatch(/\.$/);
  });
});
