import { rankSizes, type Disturbed, type RankTable } from "@/core/sizes/sizes";
import { proofOf, type Proof } from "./proof";
import type { DrawnSheet } from "../sheet";
import type { LaidSubject } from "../subject";
import { classNamed } from "@/core/sizes/general";
import { generalOf, generalText, letteringOf } from "../subject";

/**
 * Whether a Sheet as it was drawn says enough, and only once.
 * @param volume of the reference, mm³
 */
export function proveSheet(
  { body, changes }: Disturbed,
  drawn: Pick<DrawnSheet, "sheet" | "endingInside">,
  subject: Pick<LaidSubject, "sizes" | "units" | "sheet" | "tolerances">,
  volume: number,
): { readonly table: RankTable; readonly proof: Proof } {
  const unplaced = drawn.sheet.unplaced ?? [];
  // what no view shows is not said; what stands in parentheses and a thread drive nothing
  const printed = subject.sizes.filter(
    (s) => s.lettering?.reference !== true && s.kind !== "thread" && !unplaced.includes(s.id),
  );
  const table = rankSizes(body, changes, printed, letteringOf(subject));
  const proof = proofOf({
    table,
    texts: new Map(drawn.sheet.dimensions.map((d) => [d.id, d.text])),
    unplaced,
    volume,
    tolerance: subject.tolerances.mass,
    endingInside: drawn.endingInside,
    otherwise: saidOtherwise(subject),
  });
  return { table, proof };
}

function saidOtherwise(subject: Pick<LaidSubject, "units" | "sheet" | "tolerances">) {
  const general = generalOf(subject),
    said = [subject.sheet.general ?? "", subject.sheet.notes].flatMap((words) => classNamed(words) ?? []);
  const other = said.find((each) => JSON.stringify(each) !== JSON.stringify(general));
  return other && { said: generalText(other, subject), judged: generalText(general, subject) };
}
