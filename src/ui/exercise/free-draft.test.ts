import { expect, it } from "vitest";
import { freeDraftsOf, freeOf, type FreeDraft } from "./free-draft";

const things = [
  { name: "the hole ⌀9", faces: ["h/bore", "h/floor"] },
  { name: "the rounding R2", faces: ["r/round"] },
];

it("what is left free comes back as it was typed", () => {
  const drafts: FreeDraft[] = [
    { kind: "step", of: ["f"], within: "" },
    { kind: "thing", of: ["h/bore", "h/floor"], within: "0.5 mm" },
    { kind: "thing", of: ["gone/side"], within: "" },
  ];
  const r = freeOf(drafts, "mm");
  expect(r).toEqual({
    ok: true,
    value: { steps: ["f"], faces: [{ of: "h/bore", within: 0.5 }, { of: "h/floor", within: 0.5 }, "gone/side"] },
  });
  expect(r.ok && freeDraftsOf(r.value, things, "mm")).toEqual(drafts);
});

it("a thing is free where any of its faces is, nothing typed is nothing, and inches are inches", () => {
  expect(freeDraftsOf({ steps: [], faces: ["h/floor"] }, things, "mm")[0]!.of).toEqual(things[0]!.faces);
  expect(freeOf([], "mm")).toEqual({ ok: true, value: undefined });
  expect(freeOf([{ kind: "step", of: ["f"], within: "1/8" }], "in")).toMatchObject({
    value: { steps: [{ of: "f", within: 3.175 }] },
  });
});

it.each(["wide", "-1"])("%s is no distance, and said so", (within) => {
  const r = freeOf([{ kind: "step", of: ["f"], within }], "mm");
  expect(!r.ok && r.refusal.sentence).toMatch(/^Left to the student: /);
});
