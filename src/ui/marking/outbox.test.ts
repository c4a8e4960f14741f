import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Outbox, type OutboxState } from "./outbox";

/** A server that does what it is told next, and remembers what came. */
function world(...answers: (number | "lost" | "away")[]) {
  const shelf = new Map<string, string>(),
    taken: string[] = [],
    states: OutboxState[] = [],
    refused: string[] = [];
  const next = [...answers];
  const site = {
    owner: "me",
    shelf: {
      getItem: (k: string) => shelf.get(k) ?? null,
      setItem: (k: string, v: string) => void shelf.set(k, v),
      removeItem: (k: string) => void shelf.delete(k),
    },
    fetch: (async (_: unknown, init: RequestInit) => {
      const how = next.shift() ?? 200;
      if (how === "away") throw new TypeError("no connection");
      const { entries } = JSON.parse(String(init.body)) as { entries: { id: string }[] };
      if (how === "lost" || how === 200) for (const e of entries) if (!taken.includes(e.id)) taken.push(e.id);
      if (how === "lost") throw new TypeError("the answer was lost");
      const body = how === 200 ? { history: [], returned: null } : { sentence: `no ${how}` };
      return Response.json(body, { status: how });
    }) as unknown as typeof fetch,
    tell: (s: OutboxState) => void states.push(s),
    took: () => {},
    refused: (_: string, sentence: string) => void refused.push(sentence),
  };
  return { site, shelf, taken, states, refused };
}
const accept = (id: string, submission = "s") => ({ id, submission, what: { do: "accept" as const } });

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
const settle = () => vi.advanceTimersByTimeAsync(40_000);

describe("decisions on their way", () => {
  it("arrive in their order, each once, though answers and connections are lost", async () => {
    const w = world("away", "lost", 500, 200),
      box = new Outbox(w.site);
    for (const id of ["a", "b", "c"]) box.send(accept(id));
    await settle();
    expect(w.taken).toEqual(["a", "b", "c"]);
    expect(w.states.at(-1)).toEqual({ kind: "kept" });
    expect(w.states).toContainEqual(expect.objectContaining({ kind: "waiting", count: 3 }));
  });
  it("outlive a reload", async () => {
    const w = world("away", "away"),
      box = new Outbox(w.site);
    box.send(accept("a"));
    await vi.advanceTimersByTimeAsync(10);
    box.close();
    const later = new Outbox(w.site);
    expect(later.of("s").map((o) => o.id)).toEqual(["a"]);
    later.hurry();
    await settle();
    expect(w.taken).toEqual(["a"]);
    expect(w.shelf.size).toBe(0);
  });
  it("of two windows of one person lie side by side: neither erases the other's", async () => {
    const w = world("away", "away", "away", "away", 200, 200, 200),
      [one, two] = [new Outbox(w.site), new Outbox(w.site)];
    one.send(accept("a", "s"));
    two.send(accept("b", "t"));
    await vi.advanceTimersByTimeAsync(10);
    one.close();
    two.close();
    // both are shut; whichever is opened next sends all
    const later = new Outbox(w.site);
    expect([...later.of("s"), ...later.of("t")].map((o) => o.id)).toEqual(["a", "b"]);
    later.hurry();
    await settle();
    expect([...w.taken].sort()).toEqual(["a", "b"]);
    expect(w.shelf.size).toBe(0);
  });
  it("that one window has sent stay off the shelf when another keeps its own", async () => {
    const w = world(200, "away", "away"),
      [one, two] = [new Outbox(w.site), new Outbox(w.site)];
    one.send(accept("a", "s"));
    await vi.advanceTimersByTimeAsync(10);
    two.send(accept("b", "t"));
    await vi.advanceTimersByTimeAsync(10);
    two.close();
    expect(new Outbox(w.site).of("s")).toEqual([]);
  });
  it("that are refused are told and hold nothing else up; signed out they wait", async () => {
    const w = world(422, 401, 200),
      box = new Outbox(w.site);
    box.send(accept("a", "s"));
    box.send(accept("b", "t"));
    await settle();
    expect(w.refused).toEqual(["no 422"]);
    expect(w.taken).toEqual(["b"]);
  });
});
