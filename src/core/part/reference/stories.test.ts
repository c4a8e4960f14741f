import { beforeAll, describe, expect, it } from "vitest";
import { add3, distance3, scale3, type Vec3 } from "@/core/geometry/vector";
import { modelOf, type Model } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { Topology } from "@/core/kernel/topology";
import type { Outcome } from "@/core/units/refusal";
import { openNodeKernel } from "@/worker/kernel";
import type { PartDocument } from "../document";
import { rebuild } from "../rebuild";
import { STORIES } from "../testing/stories";
import { findEdge, findFace, findVertex } from "./find";
import { edgeRef, faceRef, vertexRef } from "./make";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const build = (d: PartDocument) => {
  const r = rebuild(kernel, d);
  expect(r.body, JSON.stringify(r.steps)).toBeDefined();
  return r.body!;
};

const mean = (points: readonly Vec3[]): Vec3 =>
  scale3(
    points.reduce((s, p) => add3(s, p)),
    1 / points.length,
  );

/** Picks by key on the part before; looks for it in the part after. @returns the middle of what was found */
function lookFor(key: string, m: Model, t: Topology): Outcome<Vec3> {
  if (key.includes("&")) {
    const wanted = key.split("&").sort().join();
    const v = m.vertices.findIndex(
      (x) =>
        x.faces
          .map((f) => m.faces[f]!.key)
          .sort()
          .join() === wanted,
    );
    expect(v, `no vertex ${key} on the part before`).toBeGreaterThanOrEqual(0);
    const r = findVertex(t, vertexRef(m, v)!);
    return r.ok ? { ok: true, value: t.point(r.value) } : r;
  }
  if (key.includes("|")) {
    const wanted = key.split("|").sort().join("|");
    const e = m.edges.findIndex((x) => x.key === wanted);
    expect(e, `no edge ${key} on the part before: ${m.edges.map((x) => x.key).join(" ")}`).toBeGreaterThanOrEqual(0);
    const r = findEdge(t, edgeRef(m, e)!);
    if (!r.ok) return r;
    const { shape, points } = t.edge(r.value);
    return { ok: true, value: shape.kind === "circle" ? shape.centre : mean([points[0]!, points[points.length - 1]!]) };
  }
  const f = m.faces.findIndex((x) => x.key === key);
  expect(f, `no face ${key} on the part before: ${m.faces.map((x) => x.key).join(" ")}`).toBeGreaterThanOrEqual(0);
  const r = findFace(t, faceRef(m, f)!);
  return r.ok ? { ok: true, value: t.face(r.value).centre } : r;
}

describe("references survive edits, or are reported lost", () => {
  it("in many stories", () => expect(STORIES.length).toBeGreaterThanOrEqual(40));
  it.each(STORIES.map((s) => [s.name, s] as const))("%s", (_, story) => {
    const before = build(story.before),
      after = build(story.after),
      m = modelOf(kernel, before);
    Topology.over(kernel, after, (t) => {
      for (const [key, at] of Object.entries(story.holds ?? {})) {
        const r = lookFor(key, m, t);
        expect(r.ok || `${key}: ${r.refusal.sentence}`).toBe(true);
        if (r.ok && at !== true)
          expect(distance3(r.value, at), `${key} is at ${r.value.join(", ")}`).toBeLessThan(1e-6);
      }
      for (const key of story.lost ?? []) {
        const r = lookFor(key, m, t);
        expect(r.ok ? `${key} was found at ${r.value.join(", ")}` : r.refusal.code).toBe("lost-reference");
      }
    });
    kernel.release(before.shape, after.shape);
  });
});
