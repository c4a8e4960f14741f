import { z } from "zod";
import { begun } from "@/core/naming/words";
import { letteredLength } from "@/core/sizes/lettering";
import type { LengthUnit } from "@/core/units/quantity";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";
import { STEP_KIND_NAMES, type StepKindName, type WayRule } from "./rule";
import { plainText } from "@/core/units/text";

/**
 * How the part was built: facts, which a line's rule judges, so that another rule needs no other check. Once judged
 * it carries the rule, and what is told of it.
 */
export interface WaysEvidence {
  readonly check: "ways";
  readonly verdict: Verdict;
  /** How many things are against the rule. */
  readonly off: number;
  /** In the order of the list of Steps; left out where the part was not built on the Bench. */
  readonly steps?:
    readonly { readonly kind: StepKindName; readonly title: string; readonly isNamed: boolean }[] | undefined;
  /** Like things that were made one by one: "hole, 4 times (steps 3, 4, 5, 6)". */
  readonly copies: readonly string[];
  /** Of the part, and of who built it. */
  readonly name: string;
  readonly initials: string;
  readonly number: string;
  readonly title: string;
  /** Relations and sizes that the program proposed and the student took. */
  readonly proposed: number;
  /** The thinnest wall, mm; only where a line asks for it. */
  readonly wall?: number | undefined;
  readonly judged?:
    { readonly way: WayRule["way"]; readonly faults: readonly string[]; readonly good: string } | undefined;
}

/** A wall this much thinner than asked for is none: facets of round walls lie inside the material, share. */
const FACETS = 0.01;

export const waysKind: CheckKind<WaysEvidence> = {
  evidence: z.strictObject({
    check: z.literal("ways"),
    verdict: VerdictSchema,
    off: z.number(),
    steps: z
      .array(z.strictObject({ kind: z.enum(STEP_KIND_NAMES), title: plainText(), isNamed: z.boolean() }))
      .optional(),
    copies: z.array(plainText()),
    name: plainText(),
    initials: plainText(),
    number: plainText(),
    title: plainText(),
    proposed: z.number(),
    wall: z.number().optional(),
    judged: z.strictObject({ way: plainText(), faults: z.array(plainText()), good: plainText() }).optional(),
  }) as unknown as z.ZodType<WaysEvidence>,
  forLine(e, { rule }, { units }) {
    if (!rule) return { ...e, verdict: "unknown" };
    if (rule.way === "wall" ? e.wall === undefined : !e.steps) return { ...e, verdict: "unknown" };
    const judged = judge(e, rule, units);
    return { ...e, verdict: judged.faults.length ? "missed" : "met", off: judged.faults.length, judged };
  },
  toInstructor: told,
  toStudent: told,
  start: { title: "Way of building", points: 0 },
};

function told(e: WaysEvidence): string {
  if (!e.judged)
    return e.steps ? "Could not be told." : "The part was not built on the Bench: there are no steps to look at.";
  return e.judged.faults.length ? `${e.judged.faults.map(begun).join(". ")}.` : e.judged.good;
}

function judge(evidence: WaysEvidence, rule: WayRule, unit: LengthUnit): NonNullable<WaysEvidence["judged"]> {
  const { way } = rule;
  const steps = evidence.steps ?? [];
  const numbered = (isMeant: (s: (typeof steps)[number]) => boolean) =>
    steps.flatMap((s, i) => (isMeant(s) ? [`step ${i + 1} (${s.title})`] : []));
  switch (rule.way) {
    case "kinds": {
      const { allowed, asked = [] } = rule;
      const against = allowed ? numbered((s) => !allowed.includes(s.kind)) : [];
      const lacking = asked.filter((k) => !steps.some((s) => s.kind === k));
      const faults = [
        ...against.map((s) => `${s} is of a kind that is not asked for`),
        ...lacking.map((k) => `there is no ${k} step`),
      ];
      return { way, faults, good: "Built with the kinds of steps that are asked for." };
    }
    case "most-steps": {
      const many = steps.length;
      const faults = many > rule.most ? [`${many} steps, at most ${rule.most} are asked for`] : [];
      return { way, faults, good: `${many} steps of at most ${rule.most}.` };
    }
    case "pattern":
      return {
        way,
        faults: evidence.copies.map((c) => `${c} made one by one, where a pattern does it once`),
        good: "Nothing is made one by one that a pattern makes.",
      };
    case "names": {
      const wanted = rule.part && expectedName(rule.part, evidence);
      const own = (n: number) => `without a name of ${n === 1 ? "its" : "their"} own`;
      const nameless = rule.steps ? numbered((s) => !s.isNamed) : [];
      const faults = [
        ...(wanted && evidence.name.trim() !== wanted
          ? [`the part is called “${evidence.name}”, by the rule “${wanted}”`]
          : []),
        ...(nameless.length
          ? [`${own(nameless.length)}: ${nameless.slice(0, 5).join(", ")}${nameless.length > 5 ? " …" : ""}`]
          : []),
      ];
      return { way, faults, good: "Names keep to the rule." };
    }
    case "define": {
      const used = evidence.proposed > 0;
      const text = used
        ? `${evidence.proposed} relation${evidence.proposed > 1 ? "s" : ""} or sizes came from Define the rest`
        : "Define the rest was not used";
      return { way, faults: used === rule.used ? [] : [text], good: `${text}.` };
    }
    case "wall": {
      const text = (mm: number) => `${letteredLength(mm, { unit })} ${unit}`;
      const isThin = evidence.wall! < rule.least * (1 - FACETS);
      return {
        way,
        faults: isThin
          ? [`the thinnest wall is ${text(evidence.wall!)}, at least ${text(rule.least)} is asked for`]
          : [],
        good: `No wall is thinner than ${text(rule.least)}.`,
      };
    }
  }
}

/** A name by the handout's rule. */
export const expectedName = (rule: string, e: Pick<WaysEvidence, "number" | "title" | "initials">): string =>
  rule.replaceAll("{number}", e.number).replaceAll("{title}", e.title).replaceAll("{initials}", e.initials).trim();
