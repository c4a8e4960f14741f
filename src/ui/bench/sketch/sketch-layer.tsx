"use client";

import { useEffect, useMemo, useReducer, useRef, useState, type PointerEvent } from "react";
import { toSpace } from "@/core/geometry/frame";
import type { Vec2 } from "@/core/geometry/vector";
import { frameOf } from "@/core/part/steps/sketch/schema";
import { findRegions } from "@/core/sketch/regions";
import { curveOf, pointAt, pointsOf, type Curve, type Dimension, type Sketch } from "@/core/sketch/sketch";
import { diagnosisOf, sketchOf, type BenchStore } from "../store";
import { makeTool } from "../tools/registry";
import type { Hands, Pointer, Tool } from "../tools/tool";
import { isInView, keepInView, KeyCross, keyStep, middleOf, placeText, useKeyPointer } from "./key-pointer";
import { useCamera } from "../view/viewport";
import { CurveInk, CurvePoints, curvePath, MovingInk, regionPath, WayArrow } from "./curve-ink";
import { picturesAt } from "./part-pictures";
import { PreviewInk } from "./preview-ink";
import { distinctWays, useSwing } from "./use-swing";
import { TypingFields } from "./typing-fields";
import { DimensionInk, isLettered } from "./dimension-ink";
import { Axes, Handles, HoverInk, OpenEnd } from "./fixed-ink";
import { hitAt } from "./hit";
import { MarkInks } from "./mark-ink";

/** The sketch being edited, over the model: ink, marks, dimensions, and the tool at work. */
export function SketchLayer({
  store,
  step,
  onHint,
}: {
  store: BenchStore;
  step: string;
  onHint: (hint: string) => void;
}) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const part = store((s) => s.history.present);
  const selection = store((s) => s.selection);
  const toolName = store((s) => s.toolName);
  const message = store((s) => s.message);
  const typing = store((s) => s.typing);
  const [, redraw] = useReducer((n: number) => n + 1, 0);
  const [hover, setHover] = useState<string>();
  const svg = useRef<SVGSVGElement>(null);
  const tool = useRef<Tool>(undefined);

  const stored = sketchOf(part, step)!;
  const unit = part.units;
  useEffect(() => {
    const hands: Hands = {
      sketch: () => sketchOf(store.getState().history.present, step)!,
      unit,
      selection: () => store.getState().selection,
      draw: (c) => store.getState().draw(c),
      select: (ids) => store.getState().select(ids),
      type: (fresh) => store.getState().setTyping({ fresh }),
      say: (kind, text) => store.getState().say({ kind, text, about: [] }),
      partAt: (at, what) => picturesAt(store, step, at, what),
    };
    tool.current = makeTool(toolName, hands, () => store.getState().setTool("pick"));
    if (!tool.current.usesPicked && hands.selection().length) hands.select([]);
    tool.current.begin?.();
    const { hand } = store.getState();
    hand.tool = tool.current;
    hand.redraw = () => {
      onHint(tool.current!.hint);
      redraw();
    };
    hand.redraw();
    return () => void (hand.tool = undefined);
  }, [toolName, step, store, unit, onHint]);

  // Escape first goes out of what the tool is doing
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      const s = store.getState();
      if (e.key !== "Escape" || s.typing || s.panel || s.proposals || s.dispute || !tool.current?.cancel?.()) return;
      e.stopImmediatePropagation();
      onHint(tool.current.hint);
      redraw();
    };
    window.addEventListener("keydown", key, { capture: true });
    return () => window.removeEventListener("keydown", key, { capture: true });
  }, [store, onHint]);

  const preview = tool.current?.preview ?? {};
  const swung = useSwing(store, stored, unit);
  const sketch: Sketch = preview.sketch ?? swung ?? stored;
  const [paper, setPaper] = useState<SVGGElement | null>(null);
  const [top, setTop] = useState<SVGGElement | null>(null);
  const [partEdge, setPartEdge] = useState<readonly Curve[]>([]);
  const [pointerAt, setPointerAt] = useState<Vec2>([0, 0]);
  const [keyAt, setKeyAt] = useState<Vec2>();
  const fields = tool.current?.fields ?? [];
  const passive = toolName !== "pick" && !typing;
  const frame = useMemo(() => frameOf(stored.plane), [stored.plane]);
  const diagnosis = diagnosisOf(stored, unit);
  const { regions, gaps } = useMemo(() => findRegions(stored), [stored]);
  const px = (p: Vec2): Vec2 => camera.toPixels(toSpace(frame, p));
  const pixel = 1 / camera.scale;

  const pointer = (at: Vec2, shift: boolean): Pointer => ({
    at,
    hit: tool.current?.preview.sketch ? undefined : hitAt(stored, at, pixel),
    pixel,
    shift,
  });
  const feed = (what: "down" | "move" | "up") => (event: PointerEvent) => {
    if (what !== "move" && event.button !== 0) return;
    // the browser tells of a pointer that lies still when something moves under it
    if (what === "move" && keyAt && !event.movementX && !event.movementY) return;
    const box = svg.current!.getBoundingClientRect();
    const place: Vec2 = [event.clientX - box.left, event.clientY - box.top];
    const at = camera.onPlane(frame, place);
    if (!at || !tool.current) return;
    if (what === "down") svg.current!.setPointerCapture(event.pointerId);
    if (keyAt) setKeyAt(undefined);
    tell(what, pointer(at, event.shiftKey), place);
  };
  /** The tool is told what the pointer does, the hand's or the keyboard's. @param place where on the screen */
  const tell = (what: "down" | "move" | "up", p: Pointer, place: Vec2) => {
    if (!tool.current) return;
    // what is measured or tied may be an edge of the part: its picture is drawn by itself
    const edges = !p.hit && tool.current.takesPart ? picturesAt(store, step, p.at, "edge") : [];
    setPartEdge(what === "move" ? edges : []);
    if (what === "down" && edges.length && store.getState().draw({ do: "draw", curves: [...edges], constraints: [] })) {
      const now = sketchOf(store.getState().history.present, step)!;
      tool.current.down?.({ ...p, hit: hitAt(now, p.at, pixel) });
    } else tool.current[what]?.(p);
    if (what !== "move" || tool.current.hint) onHint(tool.current.hint);
    setHover(p.hit?.ref);
    // numbers being typed stay where they are
    if (!document.activeElement?.closest("[data-typing]"))
      setPointerAt([Math.min(place[0] + 18, camera.width - 250), Math.min(place[1] + 22, camera.height - 60)]);
    redraw();
  };
  useKeyPointer(store, {
    start: () => keyAt ?? (isInView(camera, px([0, 0])) ? [0, 0] : camera.onPlane(frame, middleOf(camera))!),
    step: keyStep(pixel, unit),
    at: keyAt,
    show(at) {
      setKeyAt(at);
      keepInView(camera, px(at));
      tell("move", pointer(at, false), px(at));
    },
    press(at, shift) {
      for (const what of ["move", "down", "up"] as const) tell(what, pointer(at, shift), px(at));
    },
  });

  /** A box that begins on a mark: the paper takes the pointer over from it. */
  const boxFrom = (e: PointerEvent, [x, y]: Vec2) => {
    const box = svg.current!.getBoundingClientRect();
    const at = camera.onPlane(frame, [x - box.left, y - box.top]);
    if (!at || !tool.current || passive) return;
    svg.current!.setPointerCapture(e.pointerId);
    tool.current.down?.({ at, hit: undefined, pixel, shift: e.shiftKey });
  };

  const loose = new Set(diagnosis?.loose);
  const ways = new Map(diagnosis?.ways.map((w) => [w.point, w.along]));
  // a relation that is picked lights up what it ties
  const tied = [...sketch.constraints, ...sketch.dimensions].flatMap((r) => (selection.includes(r.id) ? r.of : []));
  const chosen = new Set([...selection, ...tied, ...(preview.picked ?? [])]);
  const about = new Set([...(message?.about ?? []), ...(diagnosis?.conflict ?? [])]);
  const troubled = about.size
    ? new Set([
        ...about,
        ...[...sketch.constraints, ...sketch.dimensions].flatMap((r) => (about.has(r.id) ? r.of.map(curveOf) : [])),
      ])
    : about;
  const view = camera.version;
  const fills = useMemo(
    () =>
      regions
        .filter((r) => r.depth % 2 === 0)
        .map((r) => (
          <path key={r.name} d={regionPath(camera, frame, r)} fill="currentColor" fillRule="evenodd" opacity={0.06} />
        )),
    [regions, frame, camera, view],
  );
  const moving = new Set(
    sketch === stored ? [] : sketch.curves.flatMap((c, i) => (c === stored.curves[i] ? [] : [c.id])),
  );
  const inks = (curves: readonly Curve[]) => {
    return [
      ...curves.map((c) => (
        <CurveInk
          key={c.id}
          camera={camera}
          view={view}
          frame={frame}
          curve={c}
          loose={loose.has(c.id)}
          chosen={chosen.has(c.id)}
          troubled={troubled.has(c.id)}
        />
      )),
      ...curves.map((c) => (
        <CurvePoints
          key={`${c.id}:points`}
          camera={camera}
          view={view}
          frame={frame}
          curve={c}
          loose={pointsOf(c)
            .filter((r) => ways.has(r))
            .join()}
          chosen={pointsOf(c)
            .filter((r) => chosen.has(r) || hover === r)
            .join()}
        />
      )),
    ];
  };
  // what stays is kept as it was drawn: React passes over it frame after frame
  const [movingKey, chosenKey, troubledKey] = [moving, chosen, troubled].map((set) => [...set].join()) as [
    string,
    string,
    string,
  ];
  const still = useMemo(
    () => inks(stored.curves.filter((c) => !moving.has(c.id))),
    [stored, diagnosis, movingKey, chosenKey, troubledKey, hover, view, frame],
  );
  const isTypingId = typing && "id" in typing ? typing.id : undefined;
  const isShown = (d: Dimension) => about.has(d.id) || isLettered(d, selection);
  const sizes = (list: readonly Dimension[], on: SVGGElement | null) =>
    list
      .filter(isShown)
      .map((d) => (
        <DimensionInk
          key={d.id}
          paper={on}
          passive={passive}
          store={store}
          sketch={sketch}
          dimension={d}
          frame={frame}
          chosen={selection.includes(d.id)}
          troubled={about.has(d.id)}
          isTyping={isTypingId === d.id}
        />
      ));
  const follows = (d: Dimension) => d.of.some((r) => moving.has(curveOf(r)));
  const stillSizes = useMemo(
    () =>
      sizes(
        stored.dimensions.filter((d) => !follows(d)),
        paper,
      ),
    [stored, movingKey, chosenKey, troubledKey, passive, isTypingId, paper, frame, view],
  );
  const agreeing = new Set(diagnosis?.agreeing);
  // arrows only where few are left: on a rough sketch everything would be arrows
  const shownWays =
    diagnosis && diagnosis.freedoms > 0 && diagnosis.freedoms <= 6 ? distinctWays(diagnosis.ways, sketch) : [];

  return (
    <>
      <svg
        ref={svg}
        className="absolute inset-0 h-full w-full text-base-content"
        style={{ ...SHEET, cursor: toolName === "pick" ? "default" : "crosshair" }}
        data-testid="sketch"
        data-freedoms={diagnosis?.freedoms}
        data-camera={JSON.stringify([camera.target, camera.right, camera.up, camera.scale])}
        onMouseDown={(e) => e.preventDefault() /* a number field that opens keeps the focus */}
        onPointerDown={feed("down")}
        onPointerMove={feed("move")}
        onPointerUp={feed("up")}
        onPointerCancel={() => {
          tool.current?.abandon?.();
          redraw();
        }}
      >
        {fills}
        <Axes
          camera={camera}
          frame={frame}
          lit={(ref) => hover === ref || chosen.has(ref)}
          strong={chosen.has("origin")}
        />
        <HoverInk camera={camera} frame={frame} curve={sketch.curves.find((c) => c.id === hover)} />
        {still}
        {!preview.sketch &&
          shownWays.map((w) => (
            <WayArrow key={w.point} camera={camera} frame={frame} at={pointAt(sketch, w.point)} along={w.along} />
          ))}
        {toolName === "pick" &&
          gaps.map((g, i) => <OpenEnd key={i} gap={g} at={px(g.at)} sketch={stored} unit={unit} />)}
        {sketch.curves.map((c) => c.kind === "spline" && <Handles key={c.id} curve={c} px={px} />)}
        <g ref={setPaper} className="pointer-events-none" />
      </svg>
      {/* what moves is painted on a sheet of its own: the rest need not be painted again */}
      <svg className="pointer-events-none absolute inset-0 h-full w-full text-base-content" style={SHEET}>
        <g ref={setTop} />
        <MovingInk
          camera={camera}
          frame={frame}
          curves={sketch.curves.filter((c) => moving.has(c.id))}
          loose={loose}
          chosen={selection}
        />
        {partEdge.map((c) => (
          <path
            key={c.id}
            data-part-edge
            d={curvePath(camera, frame, c)}
            stroke="var(--color-accent)"
            strokeWidth={2}
            strokeDasharray="5 3"
            fill="none"
          />
        ))}
        {keyAt && <KeyCross at={px(keyAt)} text={placeText(keyAt, unit)} />}
        <PreviewInk preview={preview} sketch={sketch} camera={camera} frame={frame} unit={unit} />
      </svg>
      {fields.length > 0 && (
        <TypingFields
          store={store}
          fields={fields}
          at={pointerAt}
          unit={unit}
          onChange={() => store.getState().hand.redraw()}
        />
      )}
      {/* marks would only trail behind what is dragged */}
      {!preview.sketch && <MarkInks {...{ store, sketch, px, selection, agreeing, passive }} dragFrom={boxFrom} />}
      {stillSizes}
      {moving.size > 0 && sizes(sketch.dimensions.filter(follows), top)}
      {typing && "fresh" in typing && (
        <DimensionInk
          paper={paper}
          passive={false}
          store={store}
          sketch={sketch}
          fresh={typing.fresh}
          frame={frame}
          chosen
          isTyping
          troubled={false}
        />
      )}
    </>
  );
}

/** A sheet that is painted by itself. */
const SHEET = { willChange: "transform" } as const;
