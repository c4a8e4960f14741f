import { svgOf } from "@/core/formats/drawing-svg";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Kernel } from "@/core/kernel/opencascade";
import { openDraft, type Draft } from "@/core/sheet/views/draft";
import { placeInView, pulledRemark, pulledSize, pulledTogether, pulledView } from "@/core/sheet/sizes/drag";
import { changed, type Arrangement, type SheetChange } from "@/core/sheet/layout/edit";
import { sizeOfThings, thingAt } from "@/core/sheet/sizes/pick";
import { titleOf } from "@/core/sheet/views/plans";
import { proveSheet } from "@/core/sheet/proof/prove";
import { layOut, layoutOf, type DrawnSheet } from "@/core/sheet/sheet";
import { middleOf } from "@/core/sheet/layout/standing";
import { letteringOf } from "@/core/sheet/subject";
import { lightsOf } from "@/core/sheet/page/draw";
import { keyOf } from "@/core/sizes/body";
import { isMoved } from "@/core/sizes/disturb";
import { printedText } from "@/core/sizes/printed";
import { disturbed, proposedSizes, type Disturbed } from "@/core/sizes/sizes";
import type { Size } from "@/core/sizes/size";
import type { BoardAnswer, BoardQuestion, Drawn } from "./messages";

/** The board's side of the worker: one exercise on it, its views drawn once, and the Sheet as it was drawn last. */
export class DrawingBoard {
  private exercise: Exercise | undefined;
  private draft: Draft | undefined;
  private last: DrawnSheet | undefined;
  private followed: Disturbed | undefined;

  constructor(private readonly kernel: Kernel) {}

  /** @param tell numbers of the reference that have been followed, and how many there are */
  answer(question: BoardQuestion, tell: (done: number, of: number) => void): BoardAnswer {
    if (question.ask === "open") return this.open(question.exercise);
    switch (question.ask) {
      case "draw":
        return { drawn: this.draw(question.arrangement) };
      case "pull":
        return this.pull(question);
      case "thing":
        return this.thing(question);
      case "size-of": {
        const r = sizeOfThings(this.onBoard.model, question.id, question.a, question.b);
        return r.ok ? { size: r.value } : { refused: r.refusal.sentence };
      }
      case "prove":
        return this.prove(question.arrangement, tell);
    }
  }

  private get onBoard(): Draft {
    if (!this.draft) throw new Error("nothing lies on the board");
    return this.draft;
  }

  private open(exercise: Exercise): BoardAnswer {
    this.draft?.close();
    const r = openDraft(this.kernel, exercise.reference, exercise.units);
    if (!r.ok) return { refused: r.refusal.sentence };
    this.exercise = exercise;
    this.draft = r.value;
    this.followed = undefined;
    return { opened: true };
  }

  private subject({ sizes, sheet }: Arrangement) {
    return { ...this.exercise!, sizes, sheet };
  }

  private draw(a: Arrangement): Drawn {
    const drawn = (this.last = layOut(this.onBoard, this.subject(a)));
    const { composition, sheet, drawing } = drawn;
    const { name, isLying } = composition.paper;
    return {
      svg: svgOf(drawing),
      sheet,
      layout: { ...layoutOf(composition, a.sheet.layout?.views), remarks: a.sheet.layout?.remarks ?? [] },
      paper: { name, isLying },
      troubles: drawn.troubles,
      views: composition.views.map((s) => ({
        key: s.view.key,
        title: titleOf(s.view),
        scale: s.scale,
        middle: middleOf(s),
      })),
    };
  }

  private pull({ what, id, to, alone, arrangement }: Extract<BoardQuestion, { ask: "pull" }>): BoardAnswer {
    const change = this.pulled(what, id, to, alone, arrangement);
    const next = change && changed(arrangement, change);
    return { change, drawn: next?.ok ? this.draw(next.value) : undefined };
  }

  private pulled(
    what: "size" | "view" | "remark",
    id: string,
    to: readonly [number, number],
    alone: boolean,
    { sheet: { layout } }: Arrangement,
  ): SheetChange | undefined {
    if (!this.last) return undefined;
    const { composition } = this.last;
    if (what === "view" && alone)
      return { change: "view", key: id, to: { middle: [...pulledView(composition, id, to)] } };
    if (what === "view") return { change: "views", to: pulledTogether(composition, id, to) };
    if (what === "remark") {
      const remark = layout?.remarks?.find((r) => r.id === id);
      return remark && { change: "remark", remark: pulledRemark(composition, remark, to) };
    }
    const place = pulledSize(composition, id, to);
    return place && { change: "place", id: this.headOf(id), place };
  }

  /** What is said in several lines at one leader stands by its first. */
  private headOf(id: string): string {
    for (const s of this.last!.composition.views)
      for (const { item } of s.placed) if (item.lines.some((l) => l.id === id)) return item.lines[0]!.id;
    return id;
  }

  private thing({ at, near }: Extract<BoardQuestion, { ask: "thing" }>): BoardAnswer {
    const place = this.last && placeInView(this.last.composition, at);
    const s = place && this.last!.composition.views.find((o) => o.view.key === place.view);
    if (!s || !place) return { thing: undefined, view: undefined, at: undefined };
    const lettering = letteringOf({ units: this.exercise!.units, sheet: this.exercise!.sheet });
    const thing = thingAt(this.onBoard.model, s.view, place.at, near / s.scale, lettering);
    return { thing, view: place.view, at: place.at };
  }

  private prove(a: Arrangement, tell: (done: number, of: number) => void): BoardAnswer {
    if (!this.followed) {
      const r = disturbed(this.kernel, this.exercise!.reference, tell);
      if (!r.ok) return { refused: r.refusal.sentence };
      this.followed = r.value;
    }
    const subject = this.subject(a),
      { model } = this.onBoard;
    const drawn = layOut(this.onBoard, subject);
    const { proof } = proveSheet(this.followed, drawn, subject, model.properties.volume);
    const texts = (size: Size) => printedText(size, model.body.on, letteringOf(subject));
    const { changes } = this.followed;
    const shows = proof.points.flatMap(({ sentence, numbers }) => {
      const own = changes.filter((c) => numbers.includes(c.number.id));
      const faces = model.body.surfaces.flatMap((s) =>
        own.some((c) => isMoved(s.carrier, c.on(keyOf(s)))) ? [...s.keys] : [],
      );
      return faces.length ? [[sentence, lightsOf(drawn.composition.views, faces)] as const] : [];
    });
    return {
      proof,
      shows: Object.fromEntries(shows),
      proposed: proposedSizes(this.followed).map((size) => ({ size, text: texts(size) })),
    };
  }
}
