import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { emptyPart } from "@/core/part/document";
import type { BenchKernel, BuildListener } from "./client";
import type { Built, BuildOrder, FromWorker, ToWorker } from "./messages";

/** A worker that does nothing by itself: the test says what it answers. */
class FakeWorker {
  static all: FakeWorker[] = [];
  readonly heard: ToWorker[] = [];
  ended = false;
  private listeners: Record<string, ((e: unknown) => void)[]> = {};
  constructor() {
    FakeWorker.all.push(this);
  }
  addEventListener(type: string, f: (e: unknown) => void, { signal }: { signal: AbortSignal }): void {
    const list = (this.listeners[type] ??= []);
    list.push(f);
    signal.addEventListener("abort", () => list.splice(list.indexOf(f), 1));
  }
  postMessage(m: ToWorker): void {
    this.heard.push(m);
  }
  terminate(): void {
    this.ended = true;
  }
  say(data: FromWorker): void {
    for (const f of this.listeners["message"] ?? []) f({ data });
  }
  breaks(): void {
    for (const f of this.listeners["error"] ?? []) f({});
  }
}

const order: BuildOrder = {
  document: emptyPart("x", "mm", { name: "Steel", density: 7.85 }),
  at: undefined,
  fineness: 1,
};
const built: Omit<Built, "mesh" | "id"> = {
  model: undefined,
  bodies: [],
  properties: undefined,
  steps: [],
  datums: {},
  placed: {},
  edges: [],
  under: undefined,
};
const listener = () => ({ picture: vi.fn(), settle: vi.fn() }) satisfies BuildListener;
const last = (w: FakeWorker) => w.heard[w.heard.length - 1]!.id;

vi.mock("../../parts/kernel-module", () => ({ giveKernel: (w: FakeWorker) => w }));

let kernel: BenchKernel, Fresh: typeof BenchKernel;
beforeEach(async () => {
  // a worker may be handed on within a window: each test has a window of its own
  vi.resetModules();
  ({ BenchKernel: Fresh } = await import("./client"));
  vi.useFakeTimers();
  vi.stubGlobal("Worker", FakeWorker);
  FakeWorker.all = [];
  kernel = new Fresh();
});
afterEach(() => {
  kernel.close();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe("the Bench's kernel", () => {
  it("gives the picture first, then all of it", () => {
    const l = listener();
    kernel.request(order, l);
    const [w] = FakeWorker.all as [FakeWorker];
    w.say({ id: last(w), picture: { mesh: undefined, steps: [], bodies: [] } });
    expect(l.picture).toHaveBeenCalledTimes(1);
    w.say({ id: last(w), built, heapBytes: 1e6 });
    expect(l.settle).toHaveBeenCalledWith({ ...built, id: last(w), mesh: undefined });
  });
  it("a later request overtakes; the earlier listener hears nothing more", () => {
    const a = listener(),
      b = listener();
    kernel.request(order, a);
    const [w] = FakeWorker.all as [FakeWorker],
      first = last(w);
    kernel.request(order, b);
    w.say({ id: first, overtaken: true });
    w.say({ id: first, built, heapBytes: 1 });
    w.say({ id: last(w), built, heapBytes: 1 });
    expect(a.settle).not.toHaveBeenCalled();
    expect(b.settle).toHaveBeenCalledTimes(1);
    expect(FakeWorker.all.length).toBe(1);
  });
  it("a worker stuck in one step when overtaken is given up, and the newest request begins anew", () => {
    const b = listener();
    kernel.request(order, listener());
    const [w] = FakeWorker.all as [FakeWorker];
    w.say({ id: last(w), begun: true });
    kernel.request(order, b);
    vi.advanceTimersByTime(1600);
    const [stuck, fresh] = FakeWorker.all as [FakeWorker, FakeWorker];
    expect(stuck.ended).toBe(true);
    fresh.say({ id: last(fresh), built, heapBytes: 1 });
    expect(b.settle).toHaveBeenCalledTimes(1);
  });
  it("an overtaking build is not shot down by the clock of the one before", () => {
    const b = listener();
    kernel.request(order, listener());
    const [w] = FakeWorker.all as [FakeWorker],
      first = last(w);
    kernel.request(order, b);
    // the earlier one left off in time: the later may take as long as any
    w.say({ id: first, overtaken: true });
    vi.advanceTimersByTime(20_000);
    expect(FakeWorker.all.length).toBe(1);
    w.say({ id: last(w), built, heapBytes: 1 });
    expect(b.settle).toHaveBeenCalledTimes(1);
  });
  it("a question under way keeps its worker until it is answered", async () => {
    kernel.request(order, listener());
    const [grown] = FakeWorker.all as [FakeWorker];
    const asked = kernel.ask({ ask: "extent", of: 1, along: [0, 0, 1] });
    const question = last(grown);
    grown.say({ id: 1, built, heapBytes: 500 * 1_048_576 });
    FakeWorker.all[1]!.say({ ready: true });
    expect(grown.ended).toBe(false);
    grown.say({ id: question, answer: { extent: 4 } });
    expect(await asked).toEqual({ extent: 4 });
    expect(grown.ended).toBe(true);
  });
  it("a build past its limit ends with a sentence", () => {
    const l = listener();
    kernel.request(order, l);
    FakeWorker.all[0]!.say({ id: last(FakeWorker.all[0]!), begun: true });
    vi.advanceTimersByTime(31_000);
    expect(l.settle).toHaveBeenCalledWith(undefined, expect.stringMatching(/took longer than 30 s/));
    expect(FakeWorker.all[0]!.ended).toBe(true);
  });
  it("a kernel that is long in coming over the network counts against no build, and is not begun anew", () => {
    const l = listener();
    kernel.request(order, listener());
    kernel.request(order, l);
    vi.advanceTimersByTime(240_000);
    const [w] = FakeWorker.all as [FakeWorker];
    expect([FakeWorker.all.length, w.ended, l.settle.mock.calls.length]).toEqual([1, false, 0]);
    w.say({ id: last(w), begun: true });
    vi.advanceTimersByTime(29_000);
    expect(l.settle).not.toHaveBeenCalled();
    w.say({ id: last(w), built, heapBytes: 1 });
    expect(l.settle).toHaveBeenCalledTimes(1);
  });
  it("a kernel that never comes is told", () => {
    const l = listener();
    kernel.request(order, l);
    vi.advanceTimersByTime(3_600_000);
    expect(l.settle).toHaveBeenCalledWith(undefined, expect.stringMatching(/the kernel did not come/));
  });
  it("a worker that fails, or breaks, is replaced and told", () => {
    const l = listener();
    kernel.request(order, l);
    FakeWorker.all[0]!.say({ id: last(FakeWorker.all[0]!), failed: "no memory" });
    expect(l.settle).toHaveBeenCalledWith(undefined, expect.stringContaining("no memory"));
    const m = listener();
    kernel.request(order, m);
    FakeWorker.all[1]!.breaks();
    expect(m.settle).toHaveBeenCalledWith(undefined, expect.stringMatching(/ended unexpectedly/));
  });
  it("a grown instance is replaced by one that got ready beside it, between requests", () => {
    kernel.request(order, listener());
    const [grown] = FakeWorker.all as [FakeWorker];
    grown.say({ id: last(grown), built, heapBytes: 500 * 1_048_576 });
    expect(grown.ended).toBe(false);
    const fresh = FakeWorker.all[1]!;
    fresh.say({ ready: true });
    expect(grown.ended).toBe(true);
    const l = listener();
    kernel.request(order, l);
    // the part that was shown, for what is asked about it, and the new one
    expect(fresh.heard.map((m) => m.id)).toEqual([1, 2]);
  });
  it("the tab's kernel goes over to the next Bench; one stuck in what the last one asked is given up", () => {
    kernel.request(order, listener());
    const [w] = FakeWorker.all as [FakeWorker];
    w.say({ id: last(w), built, heapBytes: 1 });
    kernel.close();
    expect(w.ended).toBe(false);
    kernel = new Fresh();
    const l = listener();
    kernel.request(order, l);
    expect(FakeWorker.all.length).toBe(1);
    w.say({ id: last(w), built, heapBytes: 1 });
    expect(l.settle).toHaveBeenCalledTimes(1);
    kernel.request(order, listener());
    const stale = last(w);
    kernel.close();
    expect(w.ended).toBe(false);
    kernel = new Fresh();
    const m = listener();
    kernel.request(order, m);
    expect(last(w)).toBeGreaterThan(stale);
    // what the last Bench asked for is nobody's now
    w.say({ id: stale, picture: { mesh: undefined, steps: [], bodies: [] } });
    expect(m.picture).not.toHaveBeenCalled();
    expect(m.settle).not.toHaveBeenCalled();
    vi.advanceTimersByTime(1600);
    expect(w.ended).toBe(true);
    const fresh = FakeWorker.all[1]!;
    fresh.say({ id: last(fresh), built, heapBytes: 1 });
    expect(m.settle).toHaveBeenCalledTimes(1);
  });
  it("parts are built beforehand one after another; a Bench that comes meanwhile takes the kernel over", async () => {
    const { buildBeforehand, warmKernel } = await import("./client");
    expect(await buildBeforehand(order.document)).toBeUndefined();
    warmKernel();
    const [w] = FakeWorker.all as [FakeWorker];
    const [one, two] = [buildBeforehand(order.document), buildBeforehand(order.document)];
    await vi.advanceTimersByTimeAsync(0);
    expect(w.heard).toHaveLength(2);
    const id = last(w);
    w.say({ id, begun: true });
    w.say({ id, picture: { mesh: undefined, steps: [], bodies: [] } });
    w.say({ id, built, heapBytes: 1e6 });
    expect(await one).toMatchObject({ id, bodies: [] });
    await vi.advanceTimersByTimeAsync(0);
    expect(w.heard).toHaveLength(3);
    const l = listener();
    kernel.request(order, l);
    expect(FakeWorker.all).toHaveLength(1);
    w.say({ id: last(w) - 1, overtaken: true });
    w.say({ id: last(w), built, heapBytes: 1e6 });
    expect(await two).toBeUndefined();
    expect(l.settle).toHaveBeenCalledOnce();
    // while a Bench is open nothing is built beforehand
    expect(await buildBeforehand(order.document)).toBeUndefined();
  });
  it("a kernel on its way to what is built beforehand is not begun anew by the Bench that takes it over", async () => {
    const { buildBeforehand, warmKernel } = await import("./client");
    warmKernel();
    const ahead = buildBeforehand(order.document);
    await vi.advanceTimersByTimeAsync(0);
    const l = listener();
    kernel.request(order, l);
    const [w] = FakeWorker.all as [FakeWorker];
    await vi.advanceTimersByTimeAsync(20_000);
    expect([FakeWorker.all.length, w.ended]).toEqual([1, false]);
    w.say({ id: last(w) - 1, overtaken: true });
    w.say({ id: last(w), built, heapBytes: 1e6 });
    expect(l.settle).toHaveBeenCalledOnce();
    expect(await ahead).toBeUndefined();
  });
  it("one that breaks while no Bench is open is not handed on, and one that has grown is replaced", () => {
    kernel.request(order, listener());
    const [w] = FakeWorker.all as [FakeWorker];
    w.say({ id: last(w), built, heapBytes: 1 });
    kernel.close();
    w.breaks();
    kernel = new Fresh();
    kernel.request(order, listener());
    const grown = FakeWorker.all[1]!;
    grown.say({ id: last(grown), built, heapBytes: 300 * 1_048_576 });
    kernel.close();
    expect(grown.ended).toBe(true);
    // the next is getting ready before anybody asks
    expect(FakeWorker.all.length).toBe(3);
  });
  it("questions are answered, and fail when the kernel is replaced", async () => {
    const asked = kernel.ask({ ask: "nearest", of: 1, a: { kind: "face", index: 0 }, b: { kind: "face", index: 1 } });
    const [w] = FakeWorker.all as [FakeWorker];
    w.say({ id: last(w), answer: { reading: { what: "distance", quantity: "length", value: 3 } } });
    expect(await asked).toEqual({ reading: { what: "distance", quantity: "length", value: 3 } });
    const lost = kernel.ask({ ask: "nearest", of: 1, a: { kind: "face", index: 0 }, b: { kind: "face", index: 1 } });
    const said = expect(lost).rejects.toThrow("replaced");
    kernel.close();
    await said;
  });
});
