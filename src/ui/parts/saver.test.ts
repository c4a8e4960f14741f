import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { emptyPart } from "@/core/part/document";
import { browserKeep, type Keep, type Waiting } from "./keep";
import { Saver, type SaveState } from "./saver";

const part = (name: string) => emptyPart(name, "mm", { name: "Steel", density: 7.85 });
const respond = (status: number, data: object) =>
  ({ ok: status < 300, status, json: () => Promise.resolve(data) }) as Response;

interface Sent {
  readonly id: string;
  readonly document: { readonly name: string };
  readonly version: number;
  readonly owner: string;
}

/** A server that keeps versions as ours does: by ids, refusing what stands on an older version. */
class Server {
  version = 1;
  name = "start";
  readonly seen: Sent[] = [];
  readonly aside: string[] = [];
  private readonly done = new Map<string, number>();
  take(s: Sent): Response {
    this.seen.push(s);
    const known = this.done.get(s.id);
    if (known) return respond(200, { version: known });
    if (s.version !== this.version) {
      this.aside.push(s.document.name);
      return respond(409, { sentence: "Another window." });
    }
    this.version++;
    this.name = s.document.name;
    this.done.set(s.id, this.version);
    return respond(200, { version: this.version, at: "2026-12-01T14:05:00Z" });
  }
}

class MemoryKeep implements Keep {
  waiting: readonly Waiting[] = [];
  isFull = false;
  read = () => Promise.resolve(this.waiting);
  write = (waiting: readonly Waiting[]) => {
    if (this.isFull) return Promise.reject(new Error("full"));
    this.waiting = waiting;
    return Promise.resolve();
  };
}

let server: Server, keep: MemoryKeep, states: SaveState[], saver: Saver;
/** What the network does with a request; the usual: it arrives and the answer comes back. */
let network: (deliver: () => Response) => Promise<Response>;
const last = () => states[states.length - 1]!;
const open = (version = server.version) =>
  new Saver({ url: "/x", owner: "me", keep, tell: (s) => states.push(s) }, version);
beforeEach(() => {
  vi.useFakeTimers();
  server = new Server();
  keep = new MemoryKeep();
  states = [];
  network = (deliver) => Promise.resolve(deliver());
  vi.stubGlobal("fetch", (_: string, init: { body: string }) =>
    network(() => server.take(JSON.parse(init.body) as Sent)),
  );
  saver = open();
});
afterEach(() => {
  saver.close();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});
const away = () => (network = () => Promise.reject(new Error("no net")));
const answersLost = () =>
  (network = (deliver) => {
    deliver();
    return Promise.reject(new Error("cut"));
  });
const back = () => (network = (deliver) => Promise.resolve(deliver()));
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms);

describe("saving", () => {
  it("sends one at a time and of those that pile up only the newest", async () => {
    ["a", "b", "c"].forEach((n) => saver.save(part(n)));
    await saver.settled();
    expect(server.seen.map((s) => [s.document.name, s.version])).toEqual([
      ["a", 1],
      ["c", 2],
    ]);
    expect(last()).toEqual({ kind: "saved", at: "2026-12-01T14:05:00Z" });
    expect(keep.waiting).toEqual([]);
  });
  it("a save whose answer was lost is sent again under its id and goes on", async () => {
    answersLost();
    saver.save(part("a"));
    await wait(100);
    expect([server.version, last().kind]).toEqual([2, "here"]);
    saver.save(part("b"));
    back();
    await wait(20_000);
    expect([server.name, server.version, last().kind]).toEqual(["b", 3, "saved"]);
    expect(server.seen[0]!.id).toBe(server.seen[1]!.id);
    expect(server.aside).toEqual([]);
  });
  it("says what is true while there is no connection, and sends all of it when there is", async () => {
    away();
    saver.save(part("a"));
    await wait(100);
    expect(last().kind).toBe("here");
    expect(keep.waiting.map((w) => w.document.name)).toEqual(["a"]);
    saver.save(part("b"));
    back();
    saver.hurry();
    await wait(10);
    expect([server.name, last().kind]).toEqual(["b", "saved"]);
  });
  it("says so where neither the browser nor the server keeps it", async () => {
    away();
    keep.isFull = true;
    saver.save(part("a"));
    await wait(100);
    expect([last().kind, saver.isAtRisk]).toEqual(["nowhere", true]);
    back();
    await wait(20_000);
    expect([last().kind, saver.isAtRisk]).toEqual(["saved", false]);
  });
  it("is settled when there was nothing to send", () => expect(saver.settled()).resolves.toBeUndefined());
  it("a refused one stays here, and a lighter one goes through", async () => {
    network = () => Promise.resolve(respond(413, { sentence: "Too large." }));
    saver.save(part("heavy"));
    await wait(10);
    expect(last()).toMatchObject({ kind: "refused", sentence: expect.stringContaining("Too large.") });
    expect(keep.waiting.map((w) => w.document.name)).toEqual(["heavy"]);
    back();
    saver.save(part("light"));
    await wait(10);
    expect([server.name, last().kind]).toEqual(["light", "saved"]);
  });
});

describe("a browser that keeps slowly", () => {
  it("a refusal stays told after what was refused is kept here at last", async () => {
    const write = keep.write;
    keep.write = (waiting) => new Promise((r) => setTimeout(r, 50)).then(() => write(waiting));
    network = () => Promise.resolve(respond(413, { sentence: "Too large." }));
    saver.save(part("heavy"));
    await wait(200);
    expect(last()).toMatchObject({ kind: "refused", sentence: "Too large. The server has what stood before." });
  });
});

describe("a window that was closed", () => {
  it("without connection: the next one sends what waited", async () => {
    away();
    saver.save(part("a"));
    saver.save(part("b"));
    await wait(10);
    saver.close();
    back();
    saver = open();
    const found = saver.takeUp();
    await wait(10);
    expect((await found) as { name: string }).toMatchObject({ name: "b" });
    expect([server.name, server.aside]).toEqual(["b", []]);
  });
  it("between save and answer: nothing is taken for another window's", async () => {
    answersLost();
    saver.save(part("a"));
    await wait(10);
    saver.close();
    back();
    saver = open();
    const found = saver.takeUp();
    await wait(10);
    await found;
    saver.save(part("b"));
    await wait(10);
    expect([server.name, server.version, server.aside]).toEqual(["b", 3, []]);
  });
  it("and another machine has gone on: what waited is put aside, and the server's goes on", async () => {
    away();
    saver.save(part("mine"));
    await wait(10);
    saver.close();
    back();
    server.version = 7;
    saver = open();
    const found = saver.takeUp();
    await wait(10);
    expect(await found).toBe("parted");
    expect(server.aside).toEqual(["mine"]);
    saver.save(part("on"));
    await wait(10);
    expect([server.name, server.version]).toEqual(["on", 8]);
  });
});

describe("two windows", () => {
  it("the earlier is told and reads only; what it still had is put aside", async () => {
    saver.save(part("a"));
    await wait(10);
    const other = new Saver({ url: "/x", owner: "me", keep: new MemoryKeep(), tell: () => {} }, server.version);
    other.save(part("theirs"));
    await wait(10);
    saver.heard(server.version, other.window);
    expect([last().kind, saver.isReadOnly]).toEqual(["parted", true]);
    saver.save(part("late"));
    await wait(10);
    expect(server.name).toBe("theirs");
    expect(await saver.keepCopy(part("late"))).toBe(true);
    expect(server.aside).toEqual(["late"]);
  });
  it("its own saves are not another window's", async () => {
    saver.save(part("a"));
    await wait(10);
    saver.heard(server.version, saver.window);
    expect(saver.isReadOnly).toBe(false);
  });
  it("both changing at once: the later is put aside with all it had", async () => {
    server.version = 5;
    saver.save(part("a"));
    saver.save(part("b"));
    await wait(10);
    expect(server.aside).toEqual(["a", "b"]);
    expect([last().kind, saver.isReadOnly]).toEqual(["parted", true]);
    await expect(saver.settled()).resolves.toBeUndefined();
  });
});

describe("the shelf in the browser", () => {
  it("keeps apart persons and parts, the newest of each, and gives them back", async () => {
    vi.useRealTimers();
    const [mine, theirs] = [browserKeep("me", "/x"), browserKeep("them", "/x")];
    const waiting = (name: string): Waiting => ({ id: crypto.randomUUID(), document: part(name), version: 1 });
    await Promise.all(["a", "b", "c"].map((n) => mine.write([waiting(n)])));
    expect((await browserKeep("me", "/x").read()).map((w) => w.document.name)).toEqual(["c"]);
    expect(await theirs.read()).toEqual([]);
    await mine.write([]);
    expect(await mine.read()).toEqual([]);
  });
});
