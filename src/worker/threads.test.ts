import { describe, expect, it } from "vitest";
import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";

/** Threads load TypeScript by the project's own loader, so they are driven in a process of their own. */
function drive(script: string): { stdout: string; status: number | null } {
  const root = fileURLToPath(new URL("../..", import.meta.url));
  const loaded = ["--liftoff-only", "--import", import.meta.resolve("tsx"), "--input-type=module"];
  const r = spawnSync(process.execPath, [...loaded, "-e", script], {
    cwd: root,
    encoding: "utf8",
    timeout: 100_000,
  });
  if (r.status !== 0) throw new Error(r.stderr);
  return r;
}
const start = (limits: string) => `
  import { KernelThreads, LIMITS } from "./src/worker/threads.ts";
  import { footExercise } from "./src/demo/exercises.ts";
  const threads = new KernelThreads({ ...LIMITS, ...${limits} }, 1);
  const task = { kind: "check", exercise: footExercise(), document: footExercise().reference };
  const tell = (x) => console.log(JSON.stringify(x));
  const fault = (e) => ({ name: e.constructor.name, message: e.message });
  const attempt = (options) => threads.run(task, options).then((r) => ({ ok: r.ok }), fault);
`;
/** What the process told, a value a line. `body` runs with `threads`, `task`, `attempt` and `tell` at hand. */
const told = (limits: string, body: string) =>
  drive(`${start(limits)} ${body} await threads.close(); process.exit(0);`)
    .stdout.trim()
    .split("\n")
    .map((l) => JSON.parse(l) as Record<string, unknown>);

describe("kernel threads", () => {
  it("check, reuse their instance, and report what they are doing", () => {
    const out = told(
      "{}",
      `const seen = [];
       tell(await attempt({ progress: (w) => seen.push(w) }));
       tell(await attempt({}));
       tell({ seen, replaced: threads.replaced, mb: Math.round(threads.peakBytes / 1048576) });`,
    );
    expect(out[0]).toEqual({ ok: true });
    expect(out[1]).toEqual({ ok: true });
    expect(out[2]!["replaced"]).toBe(0);
    expect(out[2]!["seen"]).toContain("comparing shapes");
  });
  it("end a task that takes too long, with the reason, and go on with another thread", () => {
    const out = told(
      "{ timeMs: 5 }",
      `tell(await attempt({}));
       threads.limits.timeMs = 60000;
       tell(await attempt({}));`,
    );
    expect(out[0]).toMatchObject({ name: "ThreadEnded", message: expect.stringContaining("longer than") });
    expect(out[1]).toEqual({ ok: true });
  });
  it("can be cancelled in the middle", () => {
    const out = told(
      "{}",
      `const stop = new AbortController();
       setTimeout(() => stop.abort(), 30);
       tell(await attempt({ signal: stop.signal }));
       tell(await attempt({}));`,
    );
    expect(out[0]).toMatchObject({ message: "it was cancelled" });
    expect(out[1]).toEqual({ ok: true });
  });
  it("end when the kernel wants more memory than allowed", () => {
    // a plate with four hundred holes wants more than the kernel starts with
    const holes = `
      const circle = (id, centre, radius) => ({ id, kind: "circle", centre, radius });
      const curves = [circle("o", [50, 50], 100)];
      for (let i = 0; i < 400; i++) curves.push(circle("c" + i, [(i % 20) * 6, Math.floor(i / 20) * 6], 2));
      const sketch = { plane: { base: "top" }, constraints: [], dimensions: [], curves };
      const extent = { kind: "depth", depth: 5 };
      const plate = { id: "e", kind: "extrude", sketch: "s", operation: "add", extent };
      const steps = [{ id: "s", kind: "sketch", sketch }, plate];
      task.document = { ...task.document, steps };`;
    const out = told("{ memoryBytes: 105 * 1048576 }", `${holes} tell(await attempt({}));`);
    expect(out[0]).toMatchObject({ name: "ThreadEnded", message: "it needs more than 105 MB of memory" });
  });
  it("replace an instance whose heap has grown, unnoticed", () => {
    const out = told(
      "{ replaceBytes: 1 }",
      `tell(await attempt({}));
       tell(await attempt({}));
       tell({ replaced: threads.replaced });`,
    );
    expect(out.slice(0, 2)).toEqual([{ ok: true }, { ok: true }]);
    expect(out[2]).toEqual({ replaced: 2 });
  });
});
