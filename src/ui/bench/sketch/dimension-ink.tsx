"use client";

import { COINCIDENT } from "@/core/geometry/tolerance";
import { memo, useMemo, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { toSpace, type Frame } from "@/core/geometry/frame";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { solveSketch } from "@/core/sketch/solve";
import { lengthText, type LengthUnit } from "@/core/units/quantity";
import { measuredValue } from "@/core/sketch/settle";
import { curveById, curveOf, quantityOf, type Dimension, type Sketch } from "@/core/sketch/sketch";
import { NumberField } from "../../parts/number-field";
import type { BenchStore } from "../store";
import type { NewDimension } from "../tools/tool";
import { useCamera } from "../view/viewport";
import { screenPath } from "./curve-ink";
import { dimensionGraphic, dimensionText } from "./dimension-graphic";

/** While something is drawn, numbers let clicks through; while a number is typed they can be picked up. */
export const PASSIVE = "pointer-events-none group-has-[[data-typing]_input:focus]/bench:pointer-events-auto";

type Props = {
  /** The drawing that dimension lines stand in. */ paper: SVGGElement | null;
  passive: boolean;
  store: BenchStore;
  sketch: Sketch;
  frame: Frame;
  chosen: boolean;
  isTyping: boolean;
  troubled: boolean;
} & ({ dimension: Dimension; fresh?: undefined } | { fresh: NewDimension; dimension?: undefined });

/** A dimension: its lines, and its number, which can be picked, moved and typed over. */
export const DimensionInk = memo(DrawnDimension, (a, b) => {
  const { sketch: before, ...rest } = a,
    { sketch: after, ...next } = b;
  const same = (Object.keys(next) as (keyof typeof next)[]).every((k) => rest[k] === next[k]);
  // another sketch with the same curves under it looks the same
  return (
    same &&
    before.dimensions === after.dimensions &&
    (a.dimension ?? a.fresh).of.every((r) => curveById(before, curveOf(r)) === curveById(after, curveOf(r)))
  );
});

/** Along an offset one number says it for all, until a curve of it is picked. */
export const isLettered = (d: Dimension, picked: readonly string[]): boolean =>
  !d.repeats || picked.includes(d.id) || d.of.some((r) => picked.includes(curveOf(r)));

/** Half of what the field of a size takes on the screen, with a little air; it is never cut off by the view's edge. */
const FIELD_PIXELS = [80, 24] as const;
const within = (at: number, half: number, whole: number) => Math.max(half, Math.min(whole - half, at));

function DrawnDimension(props: Props) {
  const { store, sketch, frame, chosen, isTyping, troubled, dimension, fresh, passive } = props;
  const camera = store((s) => s.camera);
  useCamera(camera);
  const [moved, setMoved] = useState<Vec2>();
  const grip = useRef<{ x: number; y: number; moved: boolean }>(undefined);
  const shown = dimension ?? fresh;
  const graphic = dimensionGraphic(sketch, { ...shown, at: moved ?? shown.at }, 1 / camera.scale);
  if (!graphic) return null;
  const unit = store.getState().history.present.units;
  const label = camera.toPixels(toSpace(frame, graphic.label));
  const ink = troubled ? "var(--conflict)" : chosen ? "var(--color-accent)" : "var(--color-primary)";
  const arrow = ([tip, from]: readonly [Vec2, Vec2], i: number) => {
    const a = camera.toPixels(toSpace(frame, tip)),
      b = camera.toPixels(toSpace(frame, from));
    const l = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    const u: Vec2 = [(b[0] - a[0]) / l, (b[1] - a[1]) / l];
    const barb = (side: number): Vec2 => [a[0] + u[0] * 10 - u[1] * 3 * side, a[1] + u[1] * 10 + u[0] * 3 * side];
    return <path key={i} d={`M${a.join(" ")}L${barb(1).join(" ")}L${barb(-1).join(" ")}Z`} fill={ink} />;
  };
  const quantity = quantityOf(shown);
  return (
    <>
      {props.paper &&
        createPortal(
          <g>
            {graphic.lines.map((l, i) => (
              <path key={i} d={screenPath(camera, frame, l)} stroke={ink} strokeWidth={1} fill="none" />
            ))}
            {graphic.arrows.map(arrow)}
          </g>,
          props.paper,
        )}
      {isTyping ? (
        <div
          className="absolute z-10 -translate-x-1/2 -translate-y-1/2 bg-base-100 shadow"
          style={{
            left: within(label[0], FIELD_PIXELS[0], camera.width),
            top: within(label[1], FIELD_PIXELS[1], camera.height),
          }}
          data-overlay
          data-size-field
        >
          <SizeField
            store={store}
            sketch={sketch}
            {...(dimension ? { dimension } : { fresh: fresh })}
            unit={quantity === "angle" ? "°" : unit}
          />
        </div>
      ) : (
        dimension && (
          <button
            aria-label={`dimension ${dimension.id}`}
            data-dimension-id={dimension.id}
            className={`figures ${passive ? PASSIVE : ""} absolute -translate-x-1/2 -translate-y-1/2
              cursor-move bg-base-100 px-1 text-[13px] leading-tight
              ${troubled ? "underline decoration-wavy" : ""}`}
            style={{ left: label[0], top: label[1], color: dimension.reference ? "var(--color-secondary)" : ink }}
            onPointerDown={(event) => {
              if (event.button !== 0) return;
              event.stopPropagation();
              // a value is picked up by a click while another is being typed
              const field = document.activeElement;
              if (field instanceof HTMLInputElement && field.closest("[data-typing], [data-size-field]")) {
                event.preventDefault();
                if (
                  !field.value.trim().startsWith("=") ||
                  field.selectionEnd! - field.selectionStart! === field.value.length
                )
                  field.setRangeText("=", 0, field.value.length, "end");
                field.setRangeText(dimension.name ?? dimension.id, field.selectionStart!, field.selectionEnd!, "end");
                field.dispatchEvent(new Event("input", { bubbles: true }));
                return;
              }
              event.currentTarget.setPointerCapture(event.pointerId);
              grip.current = { x: event.clientX - label[0], y: event.clientY - label[1], moved: false };
            }}
            onPointerMove={(e) => {
              const g = grip.current;
              if (!g) return;
              if (!g.moved && Math.hypot(e.clientX - g.x - label[0], e.clientY - g.y - label[1]) < 4) return;
              g.moved = true;
              const at = camera.onPlane(frame, [e.clientX - g.x, e.clientY - g.y]);
              if (at) setMoved(at);
            }}
            onPointerUp={(e) => {
              const g = grip.current;
              grip.current = undefined;
              if (g?.moved && moved) {
                store.getState().draw({ do: "place", id: dimension.id, at: [moved[0], moved[1]] });
                setMoved(undefined);
              } else
                store.getState().select(e.shiftKey ? [...store.getState().selection, dimension.id] : [dimension.id]);
            }}
            onPointerCancel={() => {
              grip.current = undefined;
              setMoved(undefined);
            }}
            onDoubleClick={() => !dimension.reference && store.getState().setTyping({ id: dimension.id })}
            onKeyDown={(e) =>
              e.key === "Enter" &&
              !dimension.reference &&
              (e.preventDefault(), store.getState().setTyping({ id: dimension.id }))
            }
          >
            {dimensionText(dimension, unit, sketch)}
          </button>
        )
      )}
    </>
  );
}

/** The number being typed. Enter gives it to the solver; a refusal is shown and what was typed stays. */
function SizeField({
  store,
  sketch,
  unit,
  dimension,
  fresh,
}: {
  store: BenchStore;
  sketch: Sketch;
  unit: string;
  dimension?: Dimension;
  fresh?: NewDimension;
}) {
  const units = store.getState().history.present.units;
  const [text, setText] = useState(() =>
    String(dimension ? dimension.value : Number(measuredValue(sketch, fresh!, units).toFixed(units === "mm" ? 2 : 4))),
  );
  const accept = () => {
    const { draw, setTyping } = store.getState();
    const value = text.trim();
    const ok = dimension
      ? draw({ do: "resize", id: dimension.id, value })
      : draw({
          do: "dimension",
          kind: fresh!.kind,
          of: [...fresh!.of],
          at: [...fresh!.at] as [number, number],
          value,
          ...(fresh!.flip && { flip: true }),
          ...(fresh!.sides && { sides: [...fresh!.sides] }),
        });
    if (ok) setTyping(undefined);
  };
  const rest = useRemainder(sketch, units, dimension, fresh, text);
  return (
    <div>
      <NumberField
        ariaLabel="size"
        value={text}
        unit={unit}
        onChange={setText}
        onEnter={accept}
        onEscape={() => store.getState().setTyping(undefined)}
        autoFocus
      />
      {rest.length > 0 && (
        <p className="figures quiet px-1 pb-0.5 text-[11px]" data-remainder>
          {rest.map((r) => `${r.id} becomes ${lengthText(r.length, units)}`).join(", ")}
        </p>
      )}
    </div>
  );
}

/**
 * What is left of a chain while one of its sizes is typed: lines without a size of their own whose length would
 * change.
 */
function useRemainder(
  sketch: Sketch,
  unit: LengthUnit,
  dimension: Dimension | undefined,
  fresh: NewDimension | undefined,
  text: string,
): { id: string; length: number }[] {
  return useMemo(() => {
    const probe: Dimension = dimension
      ? { ...dimension, value: text }
      : { id: "typed", ...fresh!, of: [...fresh!.of], at: [...fresh!.at], value: text };
    const others = sketch.dimensions.filter((d) => d.id !== probe.id);
    if (!others.some((d) => !d.reference)) return [];
    const r = solveSketch({ ...sketch, dimensions: [...others, probe] }, unit);
    if (!r.ok || !r.value.solved) return [];
    const sized = new Set([...others, probe].filter((d) => !d.reference).flatMap((d) => d.of.map(curveOf)));
    return r.value.sketch.curves
      .flatMap((c, i) => {
        const b = sketch.curves[i]!;
        if (c.kind !== "line" || b.kind !== "line" || sized.has(c.id) || c.construction) return [];
        const length = distance2(c.start, c.end);
        return Math.abs(length - distance2(b.start, b.end)) > COINCIDENT * Math.max(1, length)
          ? [{ id: c.id, length }]
          : [];
      })
      .slice(0, 2);
  }, [sketch, unit, dimension, fresh, text]);
}
