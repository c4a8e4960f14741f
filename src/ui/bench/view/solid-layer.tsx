"use client";

import { useEffect, useMemo, useState } from "react";
import { toSpace, type Frame } from "@/core/geometry/frame";
import { add3, scale3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import { fieldsOf } from "@/core/naming/field";
import { isReference } from "@/core/naming/reference";
import { kindOf, type Step } from "@/core/part/steps/kinds";
import type { Shown } from "../kernel/messages";
import type { BenchStore } from "../store";
import { screenPath } from "../sketch/curve-ink";
import type { Camera } from "./camera";
import { cutOf, isSeen } from "./paint";
import { isCutAway, thingsAt, type Cut } from "./pick";
import { ALL_KINDS, pickable } from "./picking";
import { edgeNow } from "./refs";
import { useCamera } from "./viewport";

/** Over the solid: what the pointer would pick, what is picked, datums, and where lost things stood. */
export function SolidLayer({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const built = store((s) => s.built),
    mode = store((s) => s.mode),
    things = store((s) => s.things),
    field = store((s) => s.pickField),
    looking = store((s) => s.looking),
    panel = store((s) => s.panel);
  const [at, setAt] = useState<Vec2>();
  const behind = store((s) => s.behind),
    reached = store((s) => s.reached);
  useEffect(() => {
    const move = (event: PointerEvent) => {
      const model = (event.target as Element).closest?.("[aria-label=Model]");
      if (!model || (event.target as Element).closest("[data-overlay]") || event.buttons) return setAt(undefined);
      const box = model.getBoundingClientRect();
      const lies = !event.movementX && !event.movementY;
      if (store.getState().reached && lies) return;
      if (store.getState().behind || store.getState().reached) store.setState({ behind: 0, reached: undefined });
      setAt([event.clientX - box.left, event.clientY - box.top]);
    };
    window.addEventListener("pointermove", move);
    return () => window.removeEventListener("pointermove", move);
  }, [store]);
  const shown = useMemo(() => pickable({ built, mode, pickField: field, looking }), [built, mode, field, looking]);
  const canPick = shown && (field || mode.kind === "solid" || mode.kind === "plane");
  const take = field?.take ?? (mode.kind === "plane" ? (["face"] as const) : ALL_KINDS);
  const list = canPick && at ? thingsAt(camera, shown, at, take, cutOf(looking.section)) : [];
  const hover = reached ?? (list.length ? list[behind % list.length] : undefined);
  const open = mode.kind === "step" ? mode.draft : undefined;
  const lost = (built?.steps ?? []).flatMap((s) => (open && s.id !== open.id ? [] : (s.lost ?? [])));
  return (
    <svg
      className="pointer-events-none absolute inset-0 h-full w-full text-base-content"
      data-testid="solid"
      data-shaded={built?.mesh?.faces.length}
      data-camera={JSON.stringify([camera.target, camera.right, camera.up, camera.scale])}
      data-hover={hover && shown ? keyOf(shown.model, hover) : undefined}
    >
      {built &&
        Object.entries(built.datums).map(([id, d]) =>
          d.kind === "plane" && isSeen(looking, id, looking.planes) ? (
            <DatumPlane key={id} camera={camera} name={id} frame={d.frame} half={sizeOf(built.properties?.box) * 0.6} />
          ) : null,
        )}
      {built &&
        Object.entries(built.datums).map(([id, d]) =>
          !isSeen(looking, id, looking.axes) ? null : d.kind === "axis" ? (
            <path
              key={id}
              d={line(
                camera,
                add3(d.line.at, scale3(d.line.along, -sizeOf(built.properties?.box))),
                add3(d.line.at, scale3(d.line.along, sizeOf(built.properties?.box))),
              )}
              stroke="var(--color-primary)"
              strokeWidth={1}
              strokeDasharray="14 3 3 3"
            />
          ) : d.kind === "point" ? (
            <Cross key={id} at={camera.toPixels(d.at)} ink="var(--color-primary)" />
          ) : null,
        )}
      {/* what a step may pick, where the step has changed it */}
      {field?.take.includes("edge") &&
        mode.kind === "step" &&
        shown?.model.edges.map((e, i) => (
          <path key={i} d={trace(camera, e.points)} stroke="var(--color-secondary)" strokeWidth={0.8} fill="none" />
        ))}
      {shown && hover && <Ink camera={camera} shown={shown} thing={hover} hover cut={cutOf(looking.section)} />}
      {built?.model &&
        built.mesh &&
        mode.kind === "solid" &&
        things.map((t) => (
          <Ink
            key={`${t.kind}${t.index}`}
            camera={camera}
            shown={{ mesh: built.mesh!, model: built.model! }}
            thing={t}
            cut={cutOf(looking.section)}
          />
        ))}
      {built?.under &&
        open &&
        refsOf(open, built.under.model).map((r, i) => <PickedRef key={i} camera={camera} at={r} />)}
      {panel === "mass" &&
        built?.properties &&
        built.properties.axes.map((d, i) => {
          const reach = 0.45 * sizeOf(built.properties!.box),
            end = camera.toPixels(add3(built.properties!.centre, scale3(d, reach)));
          return (
            <g key={i} data-principal={i + 1} stroke="var(--color-accent)" fill="var(--color-accent)">
              <path
                d={line(camera, built.properties!.centre, add3(built.properties!.centre, scale3(d, reach)))}
                strokeWidth={1.8}
              />
              <text x={end[0] + 4} y={end[1] + 4} fontSize={12} stroke="none">
                {i + 1}
              </text>
            </g>
          );
        })}
      {lost.map((l, i) => (
        <LostInk key={i} camera={camera} at={"at" in l.ref && l.ref.at ? (l.ref.at as Vec3[]) : []} />
      ))}
    </svg>
  );
}

const sizeOf = (box: { min: Vec3; max: Vec3 } | undefined): number =>
  box ? Math.hypot(box.max[0] - box.min[0], box.max[1] - box.min[1], box.max[2] - box.min[2]) / 2 : 40;
const line = (c: Camera, a: Vec3, b: Vec3) => `M${c.toPixels(a).join(" ")}L${c.toPixels(b).join(" ")}`;
const trace = (c: Camera, points: readonly Vec3[]) =>
  `M${points
    .map((p) =>
      c
        .toPixels(p)
        .map((v) => v.toFixed(1))
        .join(" "),
    )
    .join("L")}`;

/** The name of a picked thing, for tests and for the hint. */
export function keyOf(m: Model, t: Thing): string {
  return t.kind === "face"
    ? m.faces[t.index]!.key
    : t.kind === "edge"
      ? m.edges[t.index]!.key
      : m.vertices[t.index]!.faces.map((f) => m.faces[f]!.key)
          .sort()
          .join("&");
}

/** The outline of a thing: an edge by its run, a face by the edges around it, a corner by a dot. */
function Ink({
  camera,
  shown,
  thing,
  hover,
  cut,
}: {
  camera: Camera;
  shown: Shown;
  thing: Thing;
  hover?: boolean;
  cut: Cut | undefined;
}) {
  const { model } = shown,
    ink = "var(--color-accent)";
  if (thing.kind === "vertex") {
    const p = model.vertices[thing.index] && camera.toPixels(model.vertices[thing.index]!.at);
    return p ? (
      <circle cx={p[0]} cy={p[1]} r={hover ? 5 : 4.5} fill={hover ? "none" : ink} stroke={ink} strokeWidth={2} />
    ) : null;
  }
  if (thing.kind === "edge")
    return model.edges[thing.index] ? (
      <path
        data-ink={hover ? "hover" : "picked"}
        d={trace(camera, model.edges[thing.index]!.points)}
        stroke={ink}
        strokeWidth={hover ? 2.4 : 4}
        strokeLinecap="round"
        fill="none"
        opacity={hover ? 0.8 : 1}
      />
    ) : null;
  const f = shown.mesh.faces[thing.index];
  if (!f) return null;
  const { positions: p, triangles: t } = shown.mesh,
    at = (i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
  let fill = "";
  for (let k = f.start; k < f.start + f.count; k += 3)
    if (!cut || ![t[k]!, t[k + 1]!, t[k + 2]!].some((i) => isCutAway(cut, at(i))))
      fill += `M${[t[k]!, t[k + 1]!, t[k + 2]!]
        .map((i) =>
          camera
            .toPixels(at(i))
            .map((v) => v.toFixed(1))
            .join(" "),
        )
        .join("L")}Z`;
  return (
    <g data-ink={hover ? "hover" : "picked"}>
      <path d={fill} fill={ink} opacity={hover ? 0.14 : 0.3} />
      {model.edges
        .filter((e) => e.faces.includes(thing.index))
        .flatMap((e) => runsLeft(e.points, cut))
        .map((run, i) => (
          <path key={i} d={trace(camera, run)} stroke={ink} strokeWidth={1.6} fill="none" />
        ))}
    </g>
  );
}

/** What a section leaves of a run of points: one run or several. */
function runsLeft(points: readonly Vec3[], cut: Cut | undefined): Vec3[][] {
  const runs: Vec3[][] = [[]];
  for (const p of points) {
    if (!isCutAway(cut, p)) runs[runs.length - 1]!.push(p);
    else if (runs[runs.length - 1]!.length) runs.push([]);
  }
  return runs.filter((r) => r.length > 1);
}

/** Edges that a step refers to: as they stand now, or as they were picked. */
function refsOf(step: Step, m: Model): (readonly Vec3[])[] {
  return fieldsOf(kindOf(step).schema, step)
    .filter(isReference)
    .flatMap(({ value }) => {
      if (!("edge" in value)) return [];
      const now = edgeNow(m, value);
      if (now !== undefined) return [m.edges[now]!.points];
      return value.at ? [value.at] : [];
    });
}
const PickedRef = ({ camera, at }: { camera: Camera; at: readonly Vec3[] }) => (
  <path
    data-picked
    d={trace(camera, at)}
    stroke="var(--color-accent)"
    strokeWidth={3.4}
    strokeLinecap="round"
    fill="none"
  />
);

/** Where something stood that is no longer found. */
function LostInk({ camera, at }: { camera: Camera; at: readonly Vec3[] }) {
  if (!at.length) return null;
  const p = camera.toPixels(at[at.length >> 1]!);
  return (
    <g data-lost stroke="var(--conflict)" fill="none">
      {at.length > 1 && <path d={trace(camera, at)} strokeWidth={3} strokeDasharray="6 4" />}
      <circle cx={p[0]} cy={p[1]} r={11} strokeWidth={1.8} strokeDasharray="4 3" />
      <text
        x={p[0] + 14}
        y={p[1] + 4}
        fontSize={11}
        fill="var(--conflict)"
        stroke="var(--color-base-100)"
        strokeWidth={3}
        paintOrder="stroke"
      >
        was here
      </text>
    </g>
  );
}

function DatumPlane({ camera, frame, half, name }: { camera: Camera; frame: Frame; half: number; name: string }) {
  const corners = [
      [-half, -half],
      [half, -half],
      [half, half],
      [-half, half],
    ] as const,
    p = camera.toPixels(toSpace(frame, [half, half]));
  return (
    <g data-datum={name}>
      <path
        d={screenPath(camera, frame, corners, true)}
        fill="var(--color-primary)"
        fillOpacity={0.05}
        stroke="var(--color-primary)"
        strokeWidth={0.9}
        strokeDasharray="10 4"
      />
      <text x={p[0] + 4} y={p[1]} fontSize={11} fill="var(--color-primary)">
        {name}
      </text>
    </g>
  );
}
const Cross = ({ at: [x, y], ink }: { at: Vec2; ink: string }) => (
  <path d={`M${x - 5} ${y}h10M${x} ${y - 5}v10`} stroke={ink} strokeWidth={1.6} />
);
