import type { Vec2 } from "@/core/geometry/vector";
import { freeId, nextLetter, type SheetChange } from "@/core/sheet/layout/edit";
import type { Layout, ViewSpec } from "@/core/sheet/layout/layout";
import { boxAround } from "@/core/sheet/plane";
import type { SheetThing } from "@/core/sheet/sizes/pick";

export type BoardTool =
  "move" | "size" | "remark" | "section" | "detail" | "auxiliary" | "local" | "partial" | "interrupted";

interface ToolEntry {
  readonly tool: BoardTool;
  /** The key that stands where it stands in the tray. */
  readonly key: string;
  readonly label: string;
  /** What it wants next, by how many places it has. */
  readonly wants: readonly string[];
  readonly icon: string;
}

/** Rows of the tray are rows of the keyboard. */
export const BOARD_ROWS: readonly { readonly name: string; readonly tools: readonly ToolEntry[] }[] = [
  {
    name: "say",
    tools: [
      {
        tool: "move",
        key: "q",
        label: "Move",
        icon: "pick",
        wants: ["Drag a number or a view to where it shall stand; click to change it. Delete leaves it out."],
      },
      {
        tool: "size",
        key: "w",
        label: "Size",
        icon: "dimension",
        wants: [
          "Click what is to be sized: a line of the outline, a circle, an axis.",
          "Click the second thing, or the same round one again for its diameter or radius.",
        ],
      },
      {
        tool: "remark",
        key: "e",
        label: "Remark",
        icon: "remark",
        wants: ["Click the place that the remark is about.", "Click where its words shall stand."],
      },
    ],
  },
  {
    name: "view",
    tools: [
      {
        tool: "section",
        key: "a",
        label: "Section",
        icon: "section",
        wants: [
          "Click where the cutting line begins, in the view it shall stand in.",
          "Click where it ends, or where it steps.",
          "Enter draws the section; more clicks make the line step. Escape leaves without harm.",
        ],
      },
      {
        tool: "detail",
        key: "s",
        label: "Detail",
        icon: "detail",
        wants: ["Click the middle of what shall be enlarged.", "Click how far the circle reaches."],
      },
      {
        tool: "auxiliary",
        key: "d",
        label: "Square view",
        icon: "auxiliary",
        wants: ["Click a slanted flat face that a view shows as a line: the new view looks square at it."],
      },
      {
        tool: "local",
        key: "f",
        label: "Local cut",
        icon: "local",
        wants: [
          "Click around what shall be laid open, in one view.",
          "Click the next corner of the break line.",
          "Click the next corner of the break line.",
          "Enter lays it open; more clicks follow the break line. Escape leaves without harm.",
        ],
      },
      {
        tool: "partial",
        key: "g",
        label: "Part of a view",
        icon: "partial",
        wants: ["Click one corner of what the view shall still show.", "Click the opposite corner."],
      },
      {
        tool: "interrupted",
        key: "h",
        label: "Interrupt",
        icon: "interrupted",
        wants: ["Click where the part that is left out begins.", "Click where it ends."],
      },
    ],
  },
];

export const toolEntry = (tool: BoardTool): ToolEntry =>
  BOARD_ROWS.flatMap((r) => r.tools).find((t) => t.tool === tool)!;

/** A place that was clicked: in the view's own coordinates, and on the paper. */
export interface Clicked {
  readonly view: string;
  readonly at: Vec2;
  readonly paper: Vec2;
  readonly thing: SheetThing | undefined;
}

/** How many places a tool needs; more than that may be taken by those that go on until Enter. */
export const LEAST_PLACES: Record<BoardTool, number> = {
  move: Infinity,
  size: 2,
  remark: 2,
  section: 2,
  detail: 2,
  auxiliary: 1,
  local: 3,
  partial: 2,
  interrupted: 2,
};
export const goesOn = (tool: BoardTool): boolean => tool === "section" || tool === "local";

/** Details are drawn so much larger than the view they are taken from. */
const ENLARGED = 2;

/** What the places make of a layout; undefined where they make nothing. */
export function madeBy(
  tool: BoardTool,
  places: readonly Clicked[],
  layout: Layout,
  scale: number,
): SheetChange | undefined {
  const [first, second] = places;
  if (!first || places.length < LEAST_PLACES[tool]) return undefined;
  const of = first.view;
  const letter = nextLetter(layout.views.map((v) => v.letter ?? (v.key.length === 1 ? v.key : undefined)).concat("A"));
  const points = places.map((p): [number, number] => [...p.at]);
  const add = (spec: Omit<ViewSpec, "key">): SheetChange => ({
    change: "add-view",
    view: {
      key: freeId(
        "v",
        layout.views.map((v) => v.key),
      ),
      ...spec,
    },
  });
  const own = layout.views.find((v) => v.key === of);
  switch (tool) {
    case "section":
      return add({ letter, look: { from: "section", of, line: points } });
    case "detail": {
      const radius = Math.hypot(second!.at[0] - first.at[0], second!.at[1] - first.at[1]);
      if (!(radius > 0)) return undefined;
      return add({ letter, scale: scale * ENLARGED, look: { from: "detail", of, centre: points[0]!, radius } });
    }
    case "auxiliary":
      return first.thing && add({ look: { from: "auxiliary", of, face: first.thing.face } });
    case "local":
      return { change: "view", key: of, to: { local: [...(own?.local ?? []), { outline: points }] } };
    case "partial": {
      const { min, max } = boxAround(points);
      return { change: "view", key: of, to: { only: { min: [...min], max: [...max] } } };
    }
    case "interrupted": {
      const [dx, dy] = [second!.at[0] - first.at[0], second!.at[1] - first.at[1]];
      const i = Math.abs(dx) >= Math.abs(dy) ? 0 : 1;
      const [from, to] = [first.at[i], second!.at[i]].sort((a, b) => a - b) as [number, number];
      const gap = { along: i === 0 ? ("x" as const) : ("y" as const), from, to };
      return { change: "view", key: of, to: { breaks: [...(own?.breaks ?? []), gap] } };
    }
    case "remark": {
      const id = freeId(
        "r",
        (layout.remarks ?? []).map((r) => r.id),
      );
      const elbow: [number, number] = [second!.paper[0] - first.paper[0], first.paper[1] - second!.paper[1]];
      return { change: "remark", remark: { id, text: "Remark", view: of, tip: points[0]!, elbow } };
    }
    default:
      return undefined;
  }
}
