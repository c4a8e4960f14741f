import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { emptyPart } from "@/core/part/document";
import { Saver, type SaveState } from "./saver";

const part = (name: string) => emptyPart(name, "mm", { name: "Steel", density: 7.85 });
const answer = (status: number, data: object) =>
  ({ ok: status < 300, status, json: () => Promise.resolve(data) }) as Response;

let sent: { name: string; version: number }[];
let states: SaveState["kind"][];
let reply: (n: number) => Promise<Response>;
let saver: Saver;
beforeEach(() => {
  vi.useFakeTimers();
  sent = [];
  states = [];
  reply = (n) => Promise.resolve(answer(200, { version: n + 1 }));
  vi.stubGlobal("fetch", (_: string, init: { body: string }) => {
    const { document, version } = JSON.parse(init.body) as { document: { name: string }; version: number };
    sent.push({ name: document.name, version });
    return reply(sent.length);
  });
  saver = new Saver("/x", 1, (s) => states.push(s.kind));
});
afterEach(() => {
  saver.close();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe("saving", () => {
  it("sends one at a time and of those that pile up only the latest", async () => {
    saver.save(part("a"));
    saver.save(part("b"));
    saver.save(part("c"));
    await saver.settled();
    expect(sent).toEqual([
      { name: "a", version: 1 },
      { name: "c", version: 2 },
    ]);
    expect(states[states.length - 1]).toBe("saved");
  });
  it("keeps trying while there is no connection, and loses nothing", async () => {
    reply = (n) => (n < 3 ? Promise.reject(new Error("no net")) : Promise.resolve(answer(200, { version: 2 })));
    saver.save(part("a"));
    await vi.advanceTimersByTimeAsync(100);
    expect(states).toContain("waiting");
    saver.save(part("b"));
    const done = saver.settled();
    await vi.advanceTimersByTimeAsync(10_000);
    await done;
    expect(sent[sent.length - 1]).toEqual({ name: "b", version: 1 });
    expect(states[states.length - 1]).toBe("saved");
  });
  it("tries again when the server stumbles", async () => {
    reply = (n) =>
      Promise.resolve(n === 1 ? answer(500, { sentence: "Something went wrong." }) : answer(200, { version: 2 }));
    saver.save(part("a"));
    await vi.advanceTimersByTimeAsync(6000);
    expect(sent).toHaveLength(2);
  });
  it("stops when another window has saved since", async () => {
    reply = () => Promise.resolve(answer(409, { sentence: "Reload." }));
    saver.save(part("a"));
    await vi.advanceTimersByTimeAsync(6000);
    saver.save(part("b"));
    await vi.advanceTimersByTimeAsync(6000);
    expect(sent).toHaveLength(1);
    expect(states[states.length - 1]).toBe("stopped");
  });
  it("is settled when there was nothing to send", async () => {
    await expect(saver.settled()).resolves.toBeUndefined();
  });
});
