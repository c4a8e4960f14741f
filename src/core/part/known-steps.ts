import { z } from "zod";
import { StepSchema, usesOf } from "./steps/kinds";
import type { Step } from "./steps/kinds";

/** A step as it was read, and the steps it stands on. */
export interface KnownStep {
  readonly step: Step;
  readonly uses: readonly string[];
}

/** Steps are remembered up to so many characters of JSON: some thousand parts of a class. */
const MOST_CHARACTERS = 64_000_000;

/**
 * Steps that were read before, by their text. A part is saved again and again with one step changed: only that one is
 * read by its schema anew. The longest unused are forgotten.
 */
export class KnownSteps {
  private readonly steps = new Map<string, KnownStep>();
  private characters = 0;

  constructor(private readonly most = MOST_CHARACTERS) {}

  /** @param data as parsed from JSON @returns undefined where it is no step */
  read(data: unknown): KnownStep | undefined {
    const text = JSON.stringify(data) ?? "";
    const known = this.steps.get(text) ?? this.readAnew(data);
    if (!known) return undefined;
    // the newest stand last
    if (this.steps.delete(text)) this.characters -= text.length;
    this.steps.set(text, known);
    this.characters += text.length;
    this.forget();
    return known;
  }

  private readAnew(data: unknown): KnownStep | undefined {
    const r = z.safeParse(StepSchema, data);
    return r.success ? { step: r.data, uses: usesOf(r.data) } : undefined;
  }

  private forget(): void {
    for (const text of this.steps.keys()) {
      if (this.characters <= this.most) return;
      this.steps.delete(text);
      this.characters -= text.length;
    }
  }
}
