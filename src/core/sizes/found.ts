import type { SizedBody } from "./body";
import { roundingOf } from "./lettering";
import { candidatesOf } from "./propose";
import { measureSize, type Size } from "./size";
import { EQUAL } from "./tolerance";
import type { LengthUnit } from "@/core/units/quantity";

/** A size by what is printed of it: enough to look for it on a part that knows nothing of the reference. */
export interface PrintedSize {
  readonly id: string;
  readonly kind: Size["kind"];
  /** As lettered; mm, radians, counts. */
  readonly values: readonly number[];
  /** From where to where each is as printed; left out of Sheets of before: as lettered. */
  readonly limits?: readonly (readonly [least: number, most: number])[] | undefined;
}

/** Ids of the printed sizes that a part shows somewhere: of that kind, with those numbers. */
export function foundOn(body: SizedBody, printed: readonly PrintedSize[], unit: LengthUnit): string[] {
  const kinds = new Set(printed.map((p) => p.kind));
  const shown = candidatesOf(body).flatMap(({ size }) => {
    if (!kinds.has(size.kind)) return [];
    const reading = measureSize({ ...size, id: "candidate" } as Size, body.on)[0];
    return reading ? [{ kind: size.kind, reading }] : [];
  });
  const near = (quantity: "length" | "angle" | "count") =>
    quantity === "count" ? 0 : roundingOf(quantity, { unit }) + EQUAL;
  const isShown = (p: PrintedSize) =>
    shown.some(
      ({ kind, reading }) =>
        kind === p.kind &&
        reading.length === p.values.length &&
        reading.every(({ value, quantity }, i) => {
          const [least, most] = p.limits?.[i] ?? [p.values[i]!, p.values[i]!];
          const off = p.limits ? EQUAL : near(quantity);
          return value >= least - off && value <= most + off;
        }),
    );
  return printed.filter(isShown).map((p) => p.id);
}
