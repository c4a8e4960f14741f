import type { Feature } from "@/core/sizes/features";
import type { GeneralTolerance } from "@/core/sizes/general";
import type { Lettering } from "@/core/sizes/lettering";
import { printedNumbers, printedText } from "@/core/sizes/printed";
import { times } from "@/core/sizes/kinds/kind";
import { facesOfSize, measureSize, type Size } from "@/core/sizes/size";
import type { Remark } from "../layout/layout";
import type { SheetModel } from "../views/model";
import { presentationsOf } from "./present";
import type { Presentation } from "./presentation";
import type { View } from "../views/views";

/** One line of lettering, with the size it stands for. */
export interface ItemLine {
  /** Of the size, or of the remark. */
  readonly id: string;
  readonly kind: Size["kind"] | "remark" | "letter";
  readonly text: string;
  /** As lettered: what is behind the last digit printed stays here; mm and radians. None of what is free. */
  readonly values: readonly number[] | undefined;
  /** From where to where a part may have each of them, mm and radians. */
  readonly limits?: readonly (readonly [least: number, most: number])[] | undefined;
}
/** How a drawing prints its numbers, and how far they may be off in general. */
interface Printing {
  readonly lettering: Lettering;
  readonly general: GeneralTolerance;
}
/** What stands in place of a number that is left to the student's judgement. */
const FREE = "free";

/** What is placed as one: a size, or all that is said of one hole. */
export interface Item {
  readonly lines: readonly ItemLine[];
  readonly presentations: readonly Presentation[];
}

/** What a hole note says, in the order it is read. */
const NOTE: readonly Size["kind"][] = ["diameter", "thread", "depth", "counterbore", "countersink", "circle"];

/** The things to be placed on a Sheet; sizes that no view can show are told apart. */
export function itemsOf(
  model: SheetModel,
  features: readonly Feature[],
  sizes: readonly Size[],
  views: readonly View[],
  printing: Printing,
): { items: Item[]; unplaced: readonly Size[] } {
  const items: Item[] = [],
    unplaced: Size[] = [];
  for (const group of gathered(model, features, sizes)) {
    const lines = group.flatMap((s) => lineOf(model, s, printing) ?? []);
    const all = presentationsOf(model, group[0]!, views);
    // what is said in several lines stands at a leader
    const presentations = group.length > 1 ? all.filter((p) => p.form === "leader") : all;
    if (lines.length && presentations.length) items.push({ lines, presentations });
    else unplaced.push(...group);
  }
  return { items, unplaced };
}

/** What is remarked, as a thing at a leader. */
export function remarkItem(r: Remark, view: View): Item {
  const l = Math.hypot(...r.elbow) || 1;
  const tips = [{ at: r.tip, from: [r.elbow[0] / l, r.elbow[1] / l] as const }];
  return {
    lines: r.text.split("\n").map((text) => ({ id: r.id, kind: "remark", text, values: [] })),
    presentations: [{ view, fault: 0, form: "leader", tips }],
  };
}

function lineOf(model: SheetModel, size: Size, { lettering, general }: Printing): ItemLine | undefined {
  const reading = measureSize(size, model.body.on)[0];
  if (!reading) return undefined;
  // what is left to the student is marked, and gives no number away
  if (size.free === true) {
    const places = size.things ?? ("of" in size && Array.isArray(size.of) ? size.of.length : 1);
    return { id: size.id, kind: size.kind, text: times(places, FREE), values: undefined };
  }
  const numbers = printedNumbers(size, reading, lettering, general, model.body.size / 2);
  return {
    id: size.id,
    kind: size.kind,
    text: printedText(size, model.body.on, lettering),
    values: numbers.map((n) => n.nominal),
    limits: numbers.map((n) => [n.nominal - n.minus, n.nominal + n.plus] as const),
  };
}

/** Sizes of one hole together, each other size alone. */
function gathered(model: SheetModel, features: readonly Feature[], sizes: readonly Size[]): Size[][] {
  const featureAt = (face: string) => {
    const at = model.body.surfaces.findIndex((s) => s.keys.includes(face));
    return features.findIndex((f) => f.surfaces.includes(at));
  };
  const isOfHole = (s: Size) => {
    const face = facesOfSize(s)[0],
      c = face === undefined ? undefined : model.body.on(face);
    return s.kind !== "diameter" || (c !== undefined && "hollow" in c && c.hollow);
  };
  const groups = new Map<number, Size[]>(),
    alone: Size[][] = [];
  for (const s of sizes) {
    const key = NOTE.includes(s.kind) && isOfHole(s) ? featureAt(facesOfSize(s)[0]!) : -1;
    const known = groups.get(key);
    if (key < 0) alone.push([s]);
    else if (known) known.push(s);
    else groups.set(key, [s]);
  }
  const order = (s: Size) => NOTE.indexOf(s.kind);
  return [...alone, ...[...groups.values()].map((g) => g.sort((a, b) => order(a) - order(b)))];
}
