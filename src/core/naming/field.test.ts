import { describe, expect, it } from "vitest";
import { z } from "zod";
import { PartSchema } from "@/core/part/document";
import { STEP_KINDS } from "@/core/part/steps/kinds";
import { fieldsOf, means, pathText, readPath, undeclared, withFields, withValue } from "./field";

const size = () => z.union([z.number(), z.string()]);
const Thing = z.strictObject({
  id: means(z.string(), "id"),
  kind: z.enum(["long", "turned"]),
  value: means(size(), (t: { kind: string }) => (t.kind === "long" ? "length" : "angle")),
  way: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("rows"), distance: means(size(), "length", "spacing") }),
    z.strictObject({ kind: z.literal("ring"), angle: means(size(), "angle") }),
  ]),
  ends: z.array(
    z.union([z.strictObject({ at: means(z.number(), "place") }), z.strictObject({ on: means(z.string(), "face") })]),
  ),
  named: z.record(z.string(), means(z.string(), "text")).optional(),
});
const thing: z.infer<typeof Thing> = {
  id: "a",
  kind: "turned",
  value: 3,
  way: { kind: "rows", distance: "5 mm" },
  ends: [{ at: 1 }, { on: "b/end" }],
  named: { first: "x" },
};

describe("the walker", () => {
  it("meets every declared field with its place and meaning", () =>
    expect(fieldsOf(Thing, thing).map((f) => [pathText(f.path), f.meaning, f.value])).toEqual([
      ["id", "id", "a"],
      ["value", "angle", 3],
      ["way.distance", "length", "5 mm"],
      ["ends.0.at", "place", 1],
      ["ends.1.on", "face", "b/end"],
      ["named.first", "text", "x"],
    ]));
  it("keeps what is not changed, object for object", () => {
    expect(withFields(Thing, thing, (f) => f.value)).toBe(thing);
    const next = withFields(Thing, thing, (f) => (f.meaning === "length" ? "6 mm" : f.value));
    expect(next).toEqual({ ...thing, way: { kind: "rows", distance: "6 mm" } });
    expect(next.ends).toBe(thing.ends);
  });
  it("takes away what becomes undefined", () =>
    expect(withFields(Thing, thing, (f) => (f.meaning === "text" ? undefined : f.value)).named).toEqual({}));
  it("puts a value where a path leads, and nothing where it leads nowhere", () => {
    expect(withValue(thing, readPath("ends.1.on"), "c/end").ends[1]).toEqual({ on: "c/end" });
    expect(withValue(thing, readPath("way.radius"), 1)).toBe(thing);
  });
});

describe("the part document", () => {
  it("declares the meaning of every number and text of every step", () => {
    const words = new Set([".format", ".version", ".name", ".material.name", ".material.density", ".colours.body"]);
    // keys of a record are places of a sketch; what a reference is made of belongs to the reference
    expect(undeclared(PartSchema).filter((p) => !words.has(p) && !p.endsWith("colour"))).toEqual([]);
  });
  it.each(Object.keys(STEP_KINDS) as (keyof typeof STEP_KINDS)[])("%s holds something declared", (kind) =>
    expect(undeclared(STEP_KINDS[kind].schema)).toEqual([]),
  );
});
