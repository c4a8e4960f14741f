import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { decided, type Decision, type Entry, type Word } from "./decision";
import type { Grade, GradedLine } from "./grade";
import { gradeOf, line } from "./testing/lines";
import type { DueRules } from "./late";
import { markOf, type MarkInput } from "./mark";
import { SHOWS, type Shows } from "@/core/check/exercise/terms";
import { practiceShows, shownMark } from "./shows";

const at = (n: number) => new Date(Date.UTC(2026, 10, 1) + n * 60_000).toISOString();
let count = 0;
const entry = (n: number, what: Decision | Word, by = "Hedda Lark"): Entry => ({
  id: `e${count++}`,
  at: at(n),
  by,
  what,
});
const rules: DueRules = { due_at: new Date(at(0)), grace_minutes: 0, after_due: "points", points_a_day: 2 };
const mark = (grade: Grade | undefined, history: Entry[] = [], more: Partial<MarkInput> = {}) =>
  markOf({
    grade,
    checkedAt: at(0),
    decided: decided(history),
    rules,
    lateSeconds: 0,
    returned: undefined,
    ...more,
  });
const overrule = (l: string, points: number): Decision => ({ do: "overrule", line: l, points, reason: "seen" });

describe("a mark", () => {
  const grade = gradeOf(line("mass", 2, 5), line("shape", 8, 8));
  it("is the program's where nobody says otherwise", () => {
    expect(mark(grade)).toMatchObject({ points: 10, of: 13, deductions: [], needs: [] });
  });
  it("takes an overrule, keeps what the program gave, and takes it back", () => {
    const m = mark(grade, [entry(1, overrule("mass", 4))]);
    expect([m.points, m.lines[0]!.points, m.lines[0]!.machine]).toEqual([12, 4, 2]);
    expect(m.lines[0]!.overruled).toEqual({ reason: "seen", by: "Hedda Lark", at: at(1), isOlder: false });
    expect(mark(grade, [entry(1, overrule("mass", 4)), entry(2, { do: "withdraw", line: "mass" })]).points).toBe(10);
  });
  it("keeps an overrule over a second check, and says so", () => {
    const again = mark(gradeOf(line("mass", 0, 3), line("shape", 8, 8)), [entry(1, overrule("mass", 4))], {
      checkedAt: at(9),
    });
    // the line has fewer points now: nobody gets more than there is
    expect(again.lines[0]).toMatchObject({ points: 3, machine: 0, overruled: { isOlder: true } });
  });
  it("loses points for being late as a line of its own, and never more than there are", () => {
    const late = mark(grade, [], { lateSeconds: 90_000 });
    expect(late).toMatchObject({ points: 6, deductions: [{ why: "late", points: -4 }] });
    expect(mark(grade, [], { lateSeconds: 900 * 86_400 }).points).toBe(0);
  });
  it("is nothing without a line that must be met, unless that is overruled to all", () => {
    const must = gradeOf(line("mass", 2, 5, { must: true }), line("shape", 8, 8));
    expect(mark(must)).toMatchObject({ points: 0, deductions: [{ why: "must", points: -10 }] });
    expect(mark(must, [entry(1, overrule("mass", 4))]).points).toBe(0);
    expect(mark(must, [entry(1, overrule("mass", 5))]).points).toBe(13);
  });
  it("adds a bonus without raising what can be had", () => {
    expect(mark(gradeOf(line("a", 5, 5), line("b", 2, 2, { bonus: true })))).toMatchObject({ points: 7, of: 5 });
  });
});

describe("what needs a person", () => {
  const needs = (g: Grade | undefined, history: Entry[] = [], more: Partial<MarkInput> = {}) =>
    mark(g, history, more).needs;
  it.each<[string, GradedLine, readonly string[]]>([
    ["nothing of a plain one", line("mass", 0, 5), []],
    ["what could not be told", line("shape", 0, 5, { verdict: "unknown" }), ["unknown"]],
    ["a line of no points does not", line("shape", 0, 0, { verdict: "unknown" }), []],
    ["what is marked by hand", line("look", 0, 5, { check: "hand", verdict: "unknown" }), ["hand"]],
    ["what is near a limit", line("mass", 5, 5, { near: 0.97 }), ["near"]],
  ])("%s", (_, l, wanted) => expect(needs(gradeOf(l))).toEqual(wanted));
  it("what could not be checked at all", () => expect(needs(undefined)).toEqual(["failed"]));
  it("a question, until it is answered or settled; one back to the student waits for them", () => {
    const g = gradeOf(line("a", 1, 1)),
      say = entry(1, { do: "say", text: "Why?" }, "Linnea Holt");
    expect(needs(g, [say])).toEqual(["question"]);
    expect(needs(g, [say, entry(2, { do: "answer", text: "The note." })])).toEqual([]);
    expect(needs(g, [say, entry(2, { do: "settle" })])).toEqual([]);
    const back = [entry(1, { do: "ask", text: "Did you read the note?" })];
    expect(needs(g, back)).toEqual([]);
    expect(needs(g, [...back, entry(2, { do: "say", text: "No." }, "Linnea Holt")])).toEqual(["question"]);
  });
  it("accepting settles what is near and unknown, not what is marked by hand; a newer check opens it again", () => {
    const g = gradeOf(
      line("mass", 5, 5, { near: 0.97 }),
      line("shape", 0, 5, { verdict: "unknown" }),
      line("look", 0, 5, { check: "hand", verdict: "unknown" }),
    );
    const accepted = [entry(1, { do: "accept" })];
    expect(needs(g, accepted)).toEqual(["hand"]);
    expect(needs(g, [...accepted, entry(2, overrule("look", 3))])).toEqual([]);
    expect(needs(g, accepted, { checkedAt: at(5) })).toEqual(["unknown", "hand", "near"]);
    expect(needs(g, [...accepted, entry(2, { do: "reopen" })])).toEqual(["unknown", "hand", "near"]);
  });
  it("what was returned and is other points now", () => {
    const g = gradeOf(line("mass", 2, 5));
    expect(needs(g, [entry(1, { do: "return" })], { returned: 2 })).toEqual([]);
    expect(needs(g, [entry(1, { do: "return" }), entry(2, overrule("mass", 4))], { returned: 2 })).toEqual(["changed"]);
  });
});

const anyDecision = fc.oneof(
  fc.record({
    do: fc.constant("overrule" as const),
    line: fc.constantFrom("a", "b", "c", "gone"),
    points: fc.integer({ min: 0, max: 24 }).map((n) => n / 2),
    reason: fc.string({ maxLength: 8 }),
  }),
  fc.record({ do: fc.constant("withdraw" as const), line: fc.constantFrom("a", "b", "c") }),
  fc.record({ do: fc.constantFrom("accept" as const, "reopen" as const, "return" as const, "settle" as const) }),
  fc.record({ do: fc.constantFrom("ask" as const, "say" as const, "answer" as const), text: fc.constant("x") }),
);
const anyLine = (id: string) =>
  fc
    .record({
      of: fc.integer({ min: 0, max: 20 }),
      share: fc.integer({ min: 0, max: 4 }),
      bonus: fc.boolean(),
      must: fc.boolean(),
    })
    .map(({ of, share, bonus, must }) => line(id, (Math.round((of * share) / 2) * 2) / 4, of, { bonus, must }));

describe("laws", () => {
  const history = fc
    .array(anyDecision, { maxLength: 14 })
    .map((list) => list.map((what, i) => entry(i, what as Decision)));
  const grade = fc.tuple(anyLine("a"), anyLine("b"), anyLine("c")).map((lines) => gradeOf(...lines));
  it("worked out again of what was written down, a mark is the same to the point", () => {
    fc.assert(
      fc.property(history, grade, fc.integer({ min: 0, max: 500_000 }), (h, g, lateSeconds) => {
        const once = mark(g, h, { lateSeconds });
        const written = JSON.parse(JSON.stringify({ h, g })) as { h: Entry[]; g: Grade };
        expect(mark(written.g, written.h, { lateSeconds })).toEqual(once);
        expect(once.points).toBeGreaterThanOrEqual(0);
        for (const l of once.lines) expect(l.points).toBeLessThanOrEqual(l.of);
        const total = [...once.lines, ...once.deductions].reduce((s, l) => s + l.points, 0);
        expect(once.points).toBeCloseTo(Math.max(0, total), 9);
      }),
    );
  });
  it("an overrule stands over any later check until it is withdrawn", () => {
    fc.assert(
      fc.property(history, grade, grade, (h, before, after) => {
        const first = mark(before, h),
          second = mark(after, h, { checkedAt: at(100) });
        first.lines.forEach((l, i) => {
          const then = second.lines[i]!;
          expect(then.overruled === undefined).toBe(l.overruled === undefined);
          if (then.overruled) expect(then.overruled.isOlder).toBe(true);
        });
      }),
    );
  });
});

describe("what a student is sent", () => {
  const g = gradeOf(line("mass", 2, 5), line("shape", 8, 8));
  const id = "00000000-0000-4000-8000-000000000001";
  const history = [
    entry(1, overrule("mass", 4)),
    entry(2, { do: "comment", comment: id, line: "mass", text: "Well read." }),
  ];
  const shown = (shows: Partial<Shows>) => shownMark(mark(g, history), { ...SHOWS, ...shows }, decided(history));
  it("is what may be shown and nothing else", () => {
    expect(shown({}).lines[0]).toEqual({
      id: "mass",
      check: "mass",
      title: "mass",
      points: 4,
      of: 5,
      verdict: "missed",
      sentence: "mass 98 g",
      reason: "seen",
      comments: ["Well read."],
    });
    const bare = JSON.stringify(shown({ points: false, verdicts: false, sentences: false }));
    expect(bare).not.toMatch(/98|100|"points"|"verdict"|seen/);
    expect(JSON.stringify(shown({ numbers: false }))).not.toMatch(/98 g/);
    expect(JSON.stringify(shown({}))).not.toMatch(/wanted 100/);
    expect(shown({ targets: true }).lines[0]!.sentence).toMatch(/wanted 100/);
  });
  it("of a practice check is as far as it may go", () => {
    const of = (shows: "fails" | "sentences" | "all") =>
      shownMark(mark(g), practiceShows({ shows }), decided([])).lines[0]!;
    expect(of("fails")).toEqual({ id: "mass", check: "mass", title: "mass", verdict: "missed", comments: [] });
    expect(of("sentences").sentence).toBe("mass 98 g");
    expect(of("all")).toMatchObject({ points: 2, sentence: "mass 98 g" });
  });
});
