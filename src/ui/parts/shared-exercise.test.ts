import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { ExerciseChange } from "@/core/exercise/change";
import { changedSince, merged, type Stamped } from "@/core/exercise/merge";
import { isFrame, thingsOf, type Things } from "@/core/exercise/things";
import { sample } from "@/core/exercise/testing/exercises";
import { isSame } from "@/core/units/same";
import type { Keep, Waiting } from "./keep";
import type { SaveState } from "./saver";
import { SharedExercise, type Clash } from "./shared-exercise";

const respond = (status: number, data: object) =>
  ({ ok: status < 300, status, json: () => Promise.resolve(JSON.parse(JSON.stringify(data)) as object) }) as Response;

/** A server that merges as ours does. */
class Server {
  now: Stamped = { document: sample(), version: 1, stamps: {} };
  readonly done = new Set<string>();
  writes = 0;
  put(s: { id: string; document: Things; version: number }): Response {
    const { version } = this.now;
    if (this.done.has(s.id)) return respond(200, { version, theirs: changedSince(this.now, s.version) });
    const r = merged(this.now, s.document, s.version);
    if (!r.ok) return respond(422, { sentence: r.refusal.sentence });
    const { now, theirs, odds } = r.value;
    if (odds.length) return respond(409, { version, theirs, by: "Rosalind Thorne" });
    this.writes += Object.keys(r.value.written).length;
    this.now = now;
    this.done.add(s.id);
    return respond(200, { version: now.version, theirs });
  }
  look = (since: number) =>
    respond(200, {
      version: this.now.version,
      theirs: changedSince(this.now, since),
      measuring: { version: 1, preparing: "" },
    });
}
class MemoryKeep implements Keep<Things> {
  waiting: readonly Waiting<Things>[] = [];
  read = () => Promise.resolve(this.waiting);
  write = (waiting: readonly Waiting<Things>[]) => {
    this.waiting = waiting;
    return Promise.resolve();
  };
}

let server: Server;
/** What the network does with the next requests; the usual: it arrives and the answer comes back. */
let weather: ("fine" | "lost" | "unanswered")[];
beforeEach(() => {
  vi.useFakeTimers();
  server = new Server();
  weather = [];
  vi.stubGlobal("fetch", async (url: string, init?: RequestInit) => {
    const now = weather.shift() ?? "fine";
    if (now === "lost") throw new TypeError("network");
    const since = /since=(\d+)/.exec(url);
    const r = since ? server.look(Number(since[1])) : server.put(JSON.parse(String(init!.body)) as never);
    if (now === "unanswered") throw new TypeError("network");
    return r;
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function page(keep = new MemoryKeep()) {
  const states: SaveState[] = [],
    clashes: Clash[] = [];
  const { document: exercise, version } = server.now;
  const shared = new SharedExercise(
    { id: "e", exercise, version, owner: "me" },
    { saved: (s) => states.push(s), changed: () => undefined, clash: (c) => clashes.push(...c) },
    keep,
  );
  return { shared, states, clashes, keep, say: (change: ExerciseChange) => expect(shared.apply(change).ok).toBe(true) };
}
const rest = () => vi.advanceTimersByTimeAsync(60_000);
const title = (to: string): ExerciseChange => ({ do: "say", to: { title: to } });
const brief = (to: string): ExerciseChange => ({ do: "say", to: { brief: to } });
const line = (id: string, points: number): ExerciseChange => ({
  do: "line",
  line: { ...sample().rubric.find((l) => l.id === id)!, points },
});

describe("an exercise that two change at once", () => {
  it("sends only what was changed", async () => {
    const a = page();
    a.say(title("Hub"));
    await rest();
    expect([server.now.document.title, server.writes]).toEqual(["Hub", 1]);
    expect(a.states.at(-1)!.kind).toBe("saved");
  });
  it("different things both stand, on both pages, and undoing takes back one's own only", async () => {
    const [a, b] = [page(), page()];
    a.say(title("Hub"));
    b.say(line("mass", 9));
    await rest();
    await Promise.all([a.shared.look(), b.shared.look()]);
    for (const e of [server.now.document, a.shared.present, b.shared.present]) {
      expect(e.title).toBe("Hub");
      expect(e.rubric.find((l) => l.id === "mass")!.points).toBe(9);
    }
    b.shared.undo();
    await rest();
    expect(server.now.document.title).toBe("Hub");
    expect(server.now.document.rubric).toEqual(sample().rubric);
    expect([a.clashes, b.clashes]).toEqual([[], []]);
  });
  it("what one has begun and takes back stays where the other has put something in", async () => {
    const [a, b] = [page(), page()];
    a.say({ do: "terms", to: { attemptsMost: 3 } });
    await rest();
    await b.shared.look();
    b.say({ do: "terms", to: { practice: { shows: "all" } } });
    await rest();
    await a.shared.look();
    a.shared.undo();
    await rest();
    await b.shared.look();
    for (const e of [server.now.document, a.shared.present, b.shared.present])
      expect(e.terms).toEqual({ practice: { shows: "all" } });
  });
  it("of the same thing theirs stands, and one's own is one step away", async () => {
    const [a, b] = [page(), page()];
    a.say(title("Hub"));
    await rest();
    b.say(title("Rim"));
    b.say(brief("Model it."));
    await rest();
    expect(server.now.document).toMatchObject({ title: "Hub", brief: "Model it." });
    expect(b.shared.present.title).toBe("Hub");
    expect(b.clashes).toEqual([{ place: "title", mine: "Rim", by: "Rosalind Thorne" }]);
    b.shared.insist(b.clashes[0]!);
    await rest();
    expect(server.now.document.title).toBe("Rim");
    b.shared.undo();
    expect(b.shared.present.title).toBe("Hub");
  });
  it("what was changed back while it was on its way is changed back", async () => {
    const a = page();
    weather = ["unanswered"];
    a.say(title("Hub"));
    await vi.advanceTimersByTimeAsync(1);
    a.shared.undo();
    await rest();
    expect(server.now.document.title).toBe("Bracket");
  });
  it("a page that was closed without a connection is gone on with, also when others went on", async () => {
    const a = page();
    weather = Array.from({ length: 9 }, () => "lost" as const);
    a.say(title("Hub"));
    a.say(line("mass", 7));
    await vi.advanceTimersByTimeAsync(100);
    expect(a.states.at(-1)!.kind).toBe("here");
    a.shared.close();
    weather = [];
    const b = page();
    b.say(brief("Theirs."));
    await rest();
    const again = page(a.keep);
    await Promise.all([again.shared.open(), rest()]);
    await rest();
    expect(server.now.document).toMatchObject({ title: "Hub", brief: "Theirs." });
    expect(again.shared.present.brief).toBe("Theirs.");
    expect(a.keep.waiting).toEqual([]);
  });
  it("news that come while one's own is on its way are not missed", async () => {
    const [a, b] = [page(), page()];
    a.say(title("Hub"));
    const looked = a.shared.look();
    b.say(brief("Theirs."));
    await rest();
    await a.shared.look();
    await looked;
    expect(a.shared.present).toMatchObject({ title: "Hub", brief: "Theirs." });
  });
});

it("whatever two do in whatever order over a bad network, in the end all three hold the same", async () => {
  const step = fc.oneof(
    fc.record({
      who: fc.nat(1),
      do: fc.constantFrom("title", "brief", "mass", "volume", "tries", "weight", "undo", "redo", "look"),
    }),
    fc.record({ who: fc.nat(1), do: fc.constant("wait") }),
  );
  const air = fc.array(fc.constantFrom("fine" as const, "lost" as const, "unanswered" as const), { maxLength: 12 });
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 14 }), air, async (steps, bad) => {
      server = new Server();
      weather = [...bad];
      const pages = [page(), page()];
      const said = new Set<unknown>([sample().title]);
      let n = 0;
      for (const s of steps) {
        const p = pages[s.who]!;
        n++;
        if (s.do === "wait") await vi.advanceTimersByTimeAsync(700);
        else if (s.do === "undo") p.shared.undo();
        else if (s.do === "redo") p.shared.redo();
        else if (s.do === "look") void p.shared.look();
        else if (s.do === "title") p.shared.apply(title(String(said.add(`t${n}`) && `t${n}`)));
        else if (s.do === "tries") p.shared.apply({ do: "terms", to: { attemptsMost: n } });
        else if (s.do === "weight") p.shared.apply({ do: "terms", to: { weight: n } });
        else if (s.do === "brief") p.shared.apply(brief(`b${n}`));
        else p.shared.apply(line(s.do, n));
      }
      weather = [];
      for (let i = 0; i < 3; i++) {
        await vi.advanceTimersByTimeAsync(60_000);
        await Promise.all([...pages.map((p) => p.shared.look()), vi.advanceTimersByTimeAsync(1000)]);
      }
      for (const p of pages) expect(bare(p.shared.present)).toEqual(bare(server.now.document));
      expect(said).toContain(server.now.document.title);
      expect(isSame(pages[0]!.shared.present.reference, sample().reference)).toBe(true);
      for (const p of pages) p.shared.close();
    }),
    { numRuns: 120 },
  );
});

/** Without the order of lists. */
const bare = (e: Exercise): object =>
  Object.fromEntries([...thingsOf(e)].filter(([p]) => !isFrame(p)).sort(([p], [q]) => (p < q ? -1 : 1)));
