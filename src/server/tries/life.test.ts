import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { after, happening, NEEDS_TICKET, RUN_EVENTS, RUN_STATES, type RunEvent, type RunState } from "./life";

const ENDED: ReadonlySet<RunState> = new Set(["done", "failed", "replaced"]);

describe("the table of a run's life", () => {
  it("what has ended stays as it is", () => {
    for (const s of ENDED) for (const e of RUN_EVENTS) expect(after(s, e)).toBeUndefined();
  });
  it("from wherever something can happen, it comes to the same", () => {
    for (const e of RUN_EVENTS) {
      const { from, to } = happening(e);
      for (const s of RUN_STATES) expect(after(s, e)).toBe(from.includes(s) ? to : undefined);
    }
  });
  it("an open run can be stopped, replaced and buried whatever it is doing", () => {
    for (const s of ["queued", "running"] as const)
      for (const e of ["stop", "replace", "bury"] as const) expect(ENDED.has(after(s, e)!)).toBe(true);
  });
  it("only what runs can end well", () => expect(happening("finish").from).toEqual(["running"]));
});

/** A try as the server keeps it: runs, which of them is its own, and its report. */
class Model {
  readonly runs: { state: RunState; turn: number; revision: number }[] = [{ state: "queued", turn: 0, revision: 0 }];
  own = 0;
  revision = 1;
  /** The revision of the current report. */
  report = 0;
  readonly kept: number[] = [];
  readonly tickets: { run: number; turn: number; revision: number }[] = [];

  step(run: number, event: RunEvent, turn?: number): boolean {
    const r = this.runs[run]!;
    const next = after(r.state, event);
    if (!next || (NEEDS_TICKET.has(event) && turn !== r.turn)) return false;
    r.state = next;
    return true;
  }
  open(): void {
    this.runs.forEach((_, i) => this.step(i, "replace"));
    this.own = this.runs.push({ state: "queued", turn: 0, revision: 0 }) - 1;
  }
  begin(): void {
    const run = this.runs.findIndex((r) => !ENDED.has(r.state));
    if (run < 0 || !this.step(run, "begin")) return;
    const r = this.runs[run]!;
    r.turn++;
    r.revision = this.revision;
    this.tickets.push({ run, turn: r.turn, revision: r.revision });
  }
  finish(t: { run: number; turn: number; revision: number }): void {
    this.kept.push(t.revision);
    if (t.revision !== this.revision) return void this.step(t.run, "again", t.turn);
    if (this.step(t.run, "finish", t.turn) && t.run === this.own) this.report = t.revision;
  }
  /** A second check is applied: those that were tried have their report, the others are checked anew. */
  apply(isTried: boolean): void {
    this.revision++;
    if (!isTried) return this.open();
    this.runs.forEach((_, i) => this.step(i, "replace"));
    this.own = this.runs.push({ state: "done", turn: 0, revision: this.revision }) - 1;
    this.report = this.revision;
  }
}

const deed = fc.oneof(
  fc.constant(["begin"] as const),
  fc.tuple(fc.constant("finish" as const), fc.nat(20)),
  fc.tuple(fc.constant("fail" as const), fc.nat(20)),
  fc.constant(["open"] as const),
  fc.tuple(fc.constant("apply" as const), fc.boolean()),
  fc.constant(["stop"] as const),
  fc.constant(["bury"] as const),
);

describe("two runs, a second check, a stop and a death, in any order", () => {
  it("the current report is never of an earlier revision than one before it; at most one run is open", () => {
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 40 }), (deeds) => {
        const m = new Model();
        let before = 0;
        for (const [what, arg] of deeds) {
          const ticket = typeof arg === "number" ? m.tickets[arg % Math.max(m.tickets.length, 1)] : undefined;
          if (what === "begin") m.begin();
          else if (what === "open") m.open();
          else if (what === "apply") m.apply(arg === true);
          else if (what === "finish" && ticket) m.finish(ticket);
          else if (what === "fail" && ticket) m.step(ticket.run, "fail", ticket.turn);
          else if (what === "stop" || what === "bury") m.runs.forEach((_, i) => m.step(i, what));
          expect(m.report).toBeGreaterThanOrEqual(before);
          before = m.report;
          expect(m.runs.filter((r) => !ENDED.has(r.state)).length).toBeLessThanOrEqual(1);
        }
        // and whatever happened: checked once more without disturbance, it is checked by what counts now
        m.open();
        m.begin();
        m.finish(m.tickets[m.tickets.length - 1]!);
        expect(m.report).toBe(m.revision);
      }),
    );
  });
});
