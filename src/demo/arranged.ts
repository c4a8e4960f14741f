import type { Exercise } from "@/core/check/exercise/exercise";
import type { Kernel } from "@/core/kernel/opencascade";
import { openDraft } from "@/core/sheet/views/draft";
import { changed, frozen, type Arrangement, type SheetChange } from "@/core/sheet/layout/edit";
import { layOut, layoutOf, type DrawnSheet } from "@/core/sheet/sheet";
import { sizesOf } from "@/core/sizes/sizes";

/**
 * An exercise whose Sheet somebody has arranged, by the changes that the drawing board makes.
 * @param changes what is changed next, seeing what there is
 */
export function arranged(
  kernel: Kernel,
  exercise: Exercise,
  changes: readonly ((a: Arrangement, drawn: DrawnSheet) => SheetChange)[],
): Exercise {
  const found = sizesOf(kernel, exercise.reference),
    draft = openDraft(kernel, exercise.reference, exercise.units);
  if (!found.ok || !draft.ok) throw new Error(`${exercise.title} cannot be drawn`);
  let arrangement: Arrangement = { sizes: exercise.sizes ?? found.value.sizes, sheet: exercise.sheet };
  const drawn = () => layOut(draft.value, { ...exercise, ...arrangement });
  for (const change of changes) {
    const now = drawn(),
      { name, isLying } = now.composition.paper;
    arrangement = frozen(arrangement, layoutOf(now.composition, arrangement.sheet.layout?.views), { name, isLying });
    const r = changed(arrangement, change(arrangement, now));
    if (!r.ok) throw new Error(`${exercise.title}: ${r.refusal.sentence}`);
    arrangement = r.value;
  }
  draft.value.close();
  return { ...exercise, sizes: [...arrangement.sizes], sheet: arrangement.sheet };
}
