import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cut, isFit, plainText, tidy } from "./text";

describe("text from outside", () => {
  it.each([
    ["a NUL", "a\0b"],
    ["half a pair", "a\ud83d"],
    ["the other half", "\udd27a"],
    ["no character", "a\uffff"],
  ])("with %s is refused", (_, typed) => {
    const r = plainText().max(10).safeParse(typed);
    expect(r.success).toBe(false);
    expect(r.error?.issues[0]?.message).toMatch(/cannot be kept/);
  });
  it.each([
    ["plate\u0007", "plate"],
    ["one\u000btwo", "one\ntwo"],
    ["one\r\ntwo\rthree\u2028four", "one\ntwo\nthree\nfour"],
    ["\u009bplate\u001b[1m", "plate[1m"],
    ["tab\tstays\n", "tab\tstays\n"],
    ["⌀10 ± 0.1 – 🔧 żółw", "⌀10 ± 0.1 – 🔧 żółw"],
  ])("%j is kept as %j", (typed, kept) => expect(plainText().parse(typed)).toBe(kept));
  it("whatever is kept is fit, and stays what it is when read again", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary" }), (typed) => {
        const r = plainText().safeParse(typed);
        expect(r.success).toBe(isFit(typed));
        if (!r.success) return;
        expect(plainText().parse(r.data)).toBe(r.data);
        expect(tidy(r.data)).toBe(r.data);
      }),
    );
  });
  it("is cut between characters", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), fc.nat(40), (typed, most) => {
        const short = cut(typed, most);
        expect(isFit(short)).toBe(true);
        expect(typed.startsWith(short)).toBe(true);
        expect(most - short.length).toBeLessThanOrEqual(Math.max(1, most - typed.length));
      }),
    );
  });
  it("is bounded after it was tidied", () =>
    expect(plainText().trim().min(1).safeParse(" \u0007 ").success).toBe(false));
});
