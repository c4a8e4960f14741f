import { randomUUID } from "node:crypto";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Decision } from "@/core/grade/decision";
import type { Grade } from "@/core/grade/grade";
import { gradeOf, line } from "@/core/grade/testing/lines";
import { SHOWS, type Shows } from "@/core/check/exercise/terms";
import { emptyPart } from "@/core/part/document";
import { closeDatabase, one, row, rows, transaction } from "@/server/database";
import { handout, type Handout } from "@/server/handouts/handouts";
import { changeTerms } from "@/server/handouts/handout-terms";
import { decide, markingOf, remarkAll, remarksOf, returnAll, shownTo } from "@/server/marking/marking";
import type { Person } from "@/server/people/people";
import { dropPerson, gradedAs, handoutNumbered, newStudent, newSubmission } from "./sample";

let h: Handout, teacher: Person;
const students: Person[] = [];
/** A handout of its own: the demo's stays as it is. */
beforeAll(async () => {
  const from = await handoutNumbered("WS-08");
  const made = await one<{ id: string }>(
    `insert into handouts (exercise_id, course_id, exercise, revision, due_at)
     select exercise_id, course_id, exercise, revision, now() + interval '1 day' from handouts where id = $1
     returning id`,
    [from.id],
  );
  h = await handout(made.id);
  teacher = await newStudent(h.course_id, "instructor");
});
afterAll(async () => {
  for (const p of [...students, teacher]) await dropPerson(p.id);
  // what is read of the demo after this is the demo's alone
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from handouts where id = $1", [h.id]);
  });
  await closeDatabase();
});

const plain = gradeOf(line("mass", 2, 5, { studentSentence: "mass: 98 g" }), line("shape", 6, 6));

/** Somebody's checked submission. */
async function checked(grade: Grade = plain, person?: Person): Promise<string> {
  const who = person ?? (await newStudent(h.course_id));
  if (!person) students.push(who);
  const { n } = await one<{ n: number }>(
    "select count(*)::int as n from submissions where handout_id = $1 and person_id = $2",
    [h.id, who.id],
  );
  const id = await newSubmission(h.id, who.id, emptyPart("a", "mm", { name: "Steel", density: 8 }), n + 1);
  await report(id, grade);
  return id;
}
const report = gradedAs;
const entry = (what: Decision) => ({ id: randomUUID(), what });
const overrule = (points: number, reason = "seen"): Decision => ({ do: "overrule", line: "mass", points, reason });
const stands = (id: string) =>
  one<{
    points: number;
    needs: string[];
    accepted_at: Date | null;
    returned_at: Date | null;
    shown_points: number | null;
  }>("select points, needs, accepted_at, returned_at, shown_points from checks where submission_id = $1", [id]);

describe("decisions", () => {
  it("are written once, however often they are sent, and the lists follow", async () => {
    const id = await checked(),
      e = entry(overrule(4));
    for (let i = 0; i < 3; i++) await decide(id, teacher, [e]);
    expect(await stands(id)).toMatchObject({ points: 10, needs: [] });
    const { history } = await markingOf(id);
    expect(history).toHaveLength(1);
    expect(history[0]).toMatchObject({ by: teacher.name, what: overrule(4) });
  });
  it("by two at once are all there, in one order, and the mark is what follows from them", async () => {
    const id = await checked(),
      other = await newStudent(h.course_id, "assistant");
    students.push(other);
    const all = Array.from({ length: 12 }, (_, i) => entry(overrule(i % 5, `look ${i}`)));
    await Promise.all(all.map((e, i) => decide(id, i % 2 ? teacher : other, [e])));
    const m = await markingOf(id);
    expect(new Set(m.history.map((e) => e.id))).toEqual(new Set(all.map((e) => e.id)));
    const last = m.history.at(-1)!.what as Extract<Decision, { do: "overrule" }>;
    expect((await stands(id)).points).toBe(last.points + 6);
  });
  it("that cannot be are refused with a sentence, and nothing of what came with them is kept", async () => {
    const id = await checked();
    for (const bad of [overrule(5.5), overrule(4, ""), { ...overrule(1), line: "gone" }] as Decision[]) {
      const r = await decide(id, teacher, [entry({ do: "accept" }), entry(bad)]);
      expect(r.ok ? "" : r.refusal.sentence).toMatch(/has 5 points|Say why|no such line/);
    }
    expect((await markingOf(id)).history).toEqual([]);
  });
  it("cannot be changed or taken away", async () => {
    const id = await checked();
    await decide(id, teacher, [entry(overrule(4))]);
    await expect(rows("update entries set what = '{}' where submission_id = $1", [id])).rejects.toThrow(
      /never changed/,
    );
    await expect(rows("delete from entries where submission_id = $1", [id])).rejects.toThrow(/never changed/);
  });
  it("stand over a second check, which says so", async () => {
    const id = await checked();
    await decide(id, teacher, [entry(overrule(4))]);
    await report(id, gradeOf(line("mass", 0, 5), line("shape", 3, 6)));
    const { mark } = await markingOf(id);
    expect(mark.lines[0]).toMatchObject({ points: 4, machine: 0, overruled: { isOlder: true } });
    expect((await stands(id)).points).toBe(7);
  });
  it("worked out again from what was written down, give the same mark to the point", async () => {
    const decision = fc.oneof(
      fc.integer({ min: 0, max: 10 }).map((n): Decision => overrule(n / 2)),
      fc.constantFrom<Decision>({ do: "withdraw", line: "mass" }, { do: "accept" }, { do: "reopen" }, { do: "return" }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(decision, { minLength: 1, maxLength: 6 }), async (list) => {
        const id = await checked();
        const r = await decide(id, teacher, list.map(entry));
        if (!r.ok) throw new Error(r.refusal.sentence);
        const again = await markingOf(id);
        expect(again.mark).toEqual(r.value.mark);
        expect((await stands(id)).points).toBe(again.mark.points);
      }),
      { numRuns: 12 },
    );
  });
  it("questions belong to the work: asked about one try they stand on every other, until answered", async () => {
    const [asker, other] = [await newStudent(h.course_id), await newStudent(h.course_id)];
    students.push(asker, other);
    const first = await checked(plain, asker),
      elsewhere = await checked(plain, other);
    const say = { id: randomUUID(), what: { do: "say", text: "Why the mass?" } } as const;
    await decide(first, asker, [say]);
    const second = await checked(plain, asker),
      third = await checked(plain, asker);
    for (const id of [first, second, third]) {
      const m = await markingOf(id);
      expect([id, m.decided.turn, m.decided.talk.map((t) => t.text)]).toEqual([id, "instructor", ["Why the mass?"]]);
      expect(m.mark.needs).toContain("question");
    }
    expect((await markingOf(second)).decided.talk[0]!.attempt).toBe(1);
    expect((await markingOf(elsewhere)).decided.talk).toEqual([]);
    // what was decided of one try is of that try alone
    await decide(first, teacher, [entry(overrule(4))]);
    expect((await markingOf(second)).history.map((e) => e.what.do)).toEqual(["say"]);
    // answered on the third, it is answered everywhere, in the lists too
    await decide(third, teacher, [entry({ do: "answer", text: "Look at the material." })]);
    for (const id of [first, second, third]) {
      expect((await markingOf(id)).decided.turn).toBeUndefined();
      expect((await stands(id)).needs).not.toContain("question");
    }
  });
  it("questions on different tries at once wait for each other, and none is lost", async () => {
    const asker = await newStudent(h.course_id);
    students.push(asker);
    const tries = [await checked(plain, asker), await checked(plain, asker), await checked(plain, asker)];
    const said = tries.flatMap((id) =>
      [1, 2].map((n) => ({ id, say: { id: randomUUID(), what: { do: "say" as const, text: `${id} ${n}` } } })),
    );
    await Promise.all(said.map(({ id, say }) => decide(id, asker, [say])));
    for (const id of tries) expect((await markingOf(id)).decided.talk).toHaveLength(said.length);
    await decide(tries[0]!, teacher, [entry({ do: "settle" })]);
    expect((await stands(tries[2]!)).needs).not.toContain("question");
  });
  it("offer what one wrote before on lines like it", async () => {
    const id = await checked();
    const text = `Read the title block ${randomUUID().slice(0, 6)}`;
    await decide(id, teacher, [entry(overrule(3, text)), entry(overrule(4, text))]);
    expect(await remarksOf(teacher.id)).toContainEqual({ about: "mass", text });
  });
});

describe("what a student sees", () => {
  const showing = (shows: Partial<Shows>) =>
    rows("update handouts set shows = $2 where id = $1", [h.id, { ...SHOWS, ...shows }]);
  it("is the program's own until it is returned, then what was returned until it is returned anew", async () => {
    await showing({});
    const id = await checked();
    await decide(id, teacher, [entry(overrule(4))]);
    expect((await shownTo(id))!.mark.points).toBe(8);
    expect((await stands(id)).shown_points).toBe(8);
    await decide(id, teacher, [entry({ do: "return" })]);
    expect((await shownTo(id))!.mark.points).toBe(10);
    await decide(id, teacher, [entry(overrule(5))]);
    expect((await shownTo(id))!.mark.points).toBe(10);
    expect((await stands(id)).needs).toEqual(["changed"]);
    await decide(id, teacher, [entry({ do: "return" })]);
    expect((await shownTo(id))!.mark.points).toBe(11);
    expect((await stands(id)).needs).toEqual([]);
  });
  it("is nothing before it is returned, where the handout says so", async () => {
    await showing({ when: "returned" });
    const id = await checked();
    expect(await shownTo(id)).toBeUndefined();
    expect((await stands(id)).shown_points).toBeNull();
    await decide(id, teacher, [entry({ do: "return" })]);
    expect((await shownTo(id))!.mark.lines[0]!.sentence).toBe("mass: 98 g");
    await showing({});
  });
});

describe("a handout whose terms change", () => {
  it("shows its students what they may see by then, and keeps what was returned", async () => {
    const [open, back] = [await checked(), await checked()];
    await decide(back, teacher, [entry(overrule(4)), entry({ do: "return" })]);
    await changeTerms(h.id, { shows: { ...SHOWS, when: "returned" }, attemptsMost: 1 });
    await remarkAll(h.id);
    expect([(await stands(open)).shown_points, (await stands(back)).shown_points]).toEqual([null, 10]);
    expect((await handout(h.id)).attempts_most).toBe(1);
    await changeTerms(h.id, {});
    await remarkAll(h.id);
    expect([(await stands(open)).shown_points, (await stands(back)).shown_points]).toEqual([8, 10]);
  });
});

describe("returning", () => {
  it("takes those with nothing open, or all; held back, none before all were looked at", async () => {
    const clear = await checked(),
      open = await checked(gradeOf(line("look", 0, 5, { check: "hand", verdict: "unknown" })));
    const isReturned = async (id: string) => (await stands(id)).returned_at !== null;
    await returnAll(h.id, teacher, "clear", randomUUID);
    expect([await isReturned(clear), await isReturned(open)]).toEqual([true, false]);
    await rows("update handouts set hold_back = true where id = $1", [h.id]);
    const late = await checked();
    const r = await decide(late, teacher, [entry({ do: "return" })]);
    expect(r.ok ? "" : r.refusal.sentence).toMatch(/before all submissions/);
    await decide(open, teacher, [entry({ do: "accept" })]);
    await decide(late, teacher, [entry({ do: "accept" }), entry({ do: "return" })]);
    expect(await isReturned(late)).toBe(true);
    await rows("update handouts set hold_back = false where id = $1", [h.id]);
    await returnAll(h.id, teacher, "all", randomUUID);
    expect(await isReturned(open)).toBe(true);
    // an older try is not in the way
    const person = await row<{ person_id: string }>("select person_id from submissions where id = $1", [late]);
    expect(person).toBeDefined();
  });
});
