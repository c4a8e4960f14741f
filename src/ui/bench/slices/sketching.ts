import { apply, freeStepId } from "@/core/part/commands";
import { record } from "@/core/units/history";
import type { PartDocument } from "@/core/part/document";
import { frameOf } from "@/core/part/steps/sketch/schema";
import type { SketchCommand } from "@/core/sketch/command-schema";
import { defineTheRest } from "@/core/sketch/define";
import { clipOf, type Clip } from "@/core/sketch/edit/clipboard";
import { extentOf } from "@/core/sketch/profile";
import { sketchIn } from "@/core/sketch/sketch";
import type { Outcome } from "@/core/units/refusal";
import { diagnosisOf, sketchOf } from "../documents";
import type { BenchState } from "../state";
import { PICTORIAL, straightAt } from "../view/camera";
import { isInSight } from "./looking";
import { CARD_PIXELS, type Room } from "./room";

/** Curves copied, kept over sketches and reloads. */
const CLIP_KEY = "caliper-clip";

type Sketching = Pick<
  BenchState,
  "draw" | "openSketch" | "takePlane" | "choosePlane" | "defineRest" | "settleDispute" | "movePlane" | "copy" | "paste"
>;

/** What the Bench does with sketches. */
export function sketching({ get, set, document, moveTo, rebuild, closeCard }: Room): Sketching {
  const camera = () => get().camera;
  return {
    draw(command) {
      const { mode, run, fit } = get();
      if (mode.kind !== "sketch" || !run({ do: "sketch", step: mode.step, command })) return false;
      // a size can make the sketch grow out of sight, or shrink to a dot
      const sized = command.do === "dimension" || command.do === "resize";
      if (sized && !isInSight(camera(), sketchOf(document(), mode.step)!)) fit();
      return true;
    },
    openSketch(step) {
      const sketch = sketchOf(document(), step);
      if (!sketch) return;
      closeCard();
      set({
        mode: { kind: "sketch", step },
        toolName: sketch.curves.length ? "pick" : "line",
        selection: [],
        typing: undefined,
        message: undefined,
      });
      rebuild();
      camera().turnTo(straightAt(frameOf(sketch.plane)), () => get().fit());
    },
    takePlane(plane) {
      const { mode } = get();
      closeCard();
      if (mode.kind === "plane" && mode.move) {
        const step = mode.move;
        set({ mode: { kind: "sketch", step }, toolName: "pick" });
        return get().movePlane(plane);
      }
      const id = freeStepId(document(), "sketch");
      const at = get().upTo;
      if (
        get().run({
          do: "add-step",
          step: { id, kind: "sketch", sketch: sketchIn(plane) },
          ...(at !== undefined && { at }),
        })
      ) {
        if (at !== undefined) set({ upTo: at + 1 });
        get().openSketch(id);
      }
    },
    choosePlane: (move) =>
      get().endCard(() => {
        set({ mode: { kind: "plane", ...(move && { move }) }, planeShift: {}, message: undefined, panel: undefined });
        camera().side = CARD_PIXELS;
        camera().turnTo(PICTORIAL, () => get().fit());
      }),
    defineRest() {
      const { mode } = get(),
        sketch = mode.kind === "sketch" ? sketchOf(document(), mode.step) : undefined;
      if (!sketch) return;
      if (!get().mayDefine)
        return set({
          message: { kind: "notice", text: "This handout asks you to define the sketch yourself.", about: [] },
        });
      const proposals = defineTheRest(sketch, document().units);
      set(
        proposals.length
          ? { proposals, message: undefined }
          : {
              message: {
                kind: "notice",
                text:
                  diagnosisOf(sketch, document().units)?.freedoms === 0
                    ? "Nothing is loose: the sketch is fully defined."
                    : "Nothing could be proposed for what is loose here.",
                about: [],
              },
            },
      );
    },
    settleDispute(give) {
      const { dispute, mode } = get();
      if (!dispute || mode.kind !== "sketch") return;
      const asked = { do: "sketch", step: mode.step, command: dispute.command } as const;
      const giveWay = (): Outcome<PartDocument> => {
        if ("redraw" in give) return apply(document(), { ...asked, redraw: true });
        const first: SketchCommand =
          "remove" in give ? { do: "delete", ids: [give.remove] } : { do: "drive", id: give.measure, reference: true };
        const before = apply(document(), { do: "sketch", step: mode.step, command: first });
        return before.ok ? apply(before.value, asked) : before;
      };
      // both changes are one step for undo
      const after = giveWay();
      if (!after.ok)
        return set({
          message: { kind: "trouble", text: after.refusal.sentence, about: after.refusal.about ?? [] },
          dispute: undefined,
        });
      set({ dispute: undefined, message: undefined, typing: undefined });
      moveTo(record(get().history, after.value));
    },
    movePlane(plane) {
      const { mode, draw } = get();
      if (mode.kind !== "sketch" || !draw({ do: "move-plane", plane })) return;
      camera().turnTo(straightAt(frameOf(plane)), () => get().fit());
    },
    copy(cut) {
      const { mode, selection, draw, say } = get(),
        sketch = mode.kind === "sketch" ? sketchOf(document(), mode.step) : undefined;
      const ids = sketch?.curves.map((c) => c.id).filter((id) => selection.includes(id)) ?? [];
      if (!sketch) return;
      if (!ids.length)
        return say({ kind: "notice", text: "Nothing is picked: pick the curves to be copied first.", about: [] });
      localStorage.setItem(CLIP_KEY, JSON.stringify(clipOf(sketch, ids, document().units)));
      if (cut && draw({ do: "delete", ids })) get().select([]);
      else
        say({
          kind: "notice",
          text: `${ids.length} curve${ids.length > 1 ? "s" : ""} copied; Ctrl V puts them into this or another sketch.`,
          about: [],
        });
    },
    paste() {
      const { mode, draw, select } = get(),
        sketch = mode.kind === "sketch" ? sketchOf(document(), mode.step) : undefined;
      if (!sketch) return;
      try {
        const clip = JSON.parse(localStorage.getItem(CLIP_KEY) ?? "") as Clip,
          box = extentOf(clip);
        const aside = box ? 0.1 * Math.max(box[1][0] - box[0][0], box[1][1] - box[0][1]) : 0;
        const before = new Set(sketch.curves.map((c) => c.id));
        if (draw({ do: "paste", clip, by: [aside, aside] }))
          select(
            sketchOf(document(), mode.kind === "sketch" ? mode.step : "")!
              .curves.map((c) => c.id)
              .filter((id) => !before.has(id)),
          );
      } catch {
        set({ message: { kind: "notice", text: "There is nothing to paste: copy some curves first.", about: [] } });
      }
    },
  };
}
