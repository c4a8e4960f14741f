"use client";

import type { AxisStep } from "@/core/part/steps/axis/schema";
import type { PlaneStep } from "@/core/part/steps/plane/schema";
import type { PointStep } from "@/core/part/steps/point/schema";
import type { AxisRef, PlaneRef, PointRef } from "@/core/naming/reference";
import type { BenchStore } from "../store";
import { CardFrame, Choice, RefField, SizeInput, Tick, type CardProps } from "./card";
import { asAxis, asFace, asPlane, asPoint, axisOptions, planeOptions, pointOptions } from "./options";

/** Fields for references, with what the steps before offer. */
function useFields(store: BenchStore) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode),
    before = document.steps.slice(0, mode.kind === "step" ? mode.at : undefined);
  return {
    plane: (name: string, value: PlaneRef, put: (r: PlaneRef) => void) => (
      <RefField
        key={name}
        store={store}
        name={name}
        hint="click a flat face"
        take={["face"]}
        value={value}
        options={planeOptions(before)}
        onChoose={put}
        onPick={(m, t) => {
          const r = asPlane(m, t);
          if (r) put(r);
        }}
      />
    ),
    axis: (name: string, value: AxisRef, put: (r: AxisRef) => void) => (
      <RefField
        key={name}
        store={store}
        name={name}
        hint="click an edge or round face"
        take={["edge", "face"]}
        value={value}
        options={axisOptions(before, document.units)}
        onChoose={put}
        onPick={(m, t) => {
          const r = asAxis(m, t);
          if (r) put(r);
        }}
      />
    ),
    point: (name: string, value: PointRef, put: (r: PointRef) => void) => (
      <RefField
        key={name}
        store={store}
        name={name}
        hint="click a corner or edge"
        take={["vertex", "edge"]}
        value={value}
        options={pointOptions(before)}
        onChoose={put}
        onPick={(m, t) => {
          const r = asPoint(m, t);
          if (r) put(r);
        }}
      />
    ),
  };
}

export function PlaneStepCard({ store, draft, change }: CardProps<PlaneStep>) {
  const { plane, axis, point } = useFields(store),
    { by } = draft,
    origin: PointRef = { point: "origin" };
  const set = (b: PlaneStep["by"]) => change((d) => ({ ...d, by: b }));
  const begin = (kind: PlaneStep["by"]["kind"]): PlaneStep["by"] =>
    kind === "offset"
      ? { kind, from: { datum: "top" }, distance: "10" }
      : kind === "tilted"
        ? { kind, from: { datum: "top" }, about: { axis: "x" }, angle: "30" }
        : kind === "midway"
          ? { kind, a: { datum: "top" }, b: { datum: "top" } }
          : kind === "points"
            ? { kind, of: [origin, origin, origin] }
            : { kind, face: { face: "pick" }, beside: { datum: "top" } };
  return (
    <CardFrame store={store} draft={draft} title="Datum plane">
      <Choice
        small
        label="How"
        value={by.kind}
        of={[
          ["offset", "Offset"],
          ["tilted", "Tilted"],
          ["midway", "Midway"],
          ["points", "Three points"],
          ["tangent", "Tangent"],
        ]}
        onChange={(k) => set(begin(k))}
      />
      {by.kind === "offset" && (
        <>
          {plane("From", by.from, (from) => set({ ...by, from }))}
          <SizeInput
            store={store}
            autoFocus
            label="Distance"
            value={by.distance}
            onChange={(distance) => set({ ...by, distance })}
          />
        </>
      )}
      {by.kind === "tilted" && (
        <>
          {plane("From", by.from, (from) => set({ ...by, from }))}
          {axis("About", by.about, (about) => set({ ...by, about }))}
          <SizeInput store={store} angle label="Angle" value={by.angle} onChange={(angle) => set({ ...by, angle })} />
        </>
      )}
      {by.kind === "midway" && (
        <>
          {plane("Between", by.a, (a) => set({ ...by, a }))}
          {plane("and", by.b, (b) => set({ ...by, b }))}
        </>
      )}
      {by.kind === "points" &&
        by.of.map((p, i) =>
          point(`Point ${i + 1}`, p, (r) => set({ ...by, of: by.of.map((x, k) => (k === i ? r : x)) as typeof by.of })),
        )}
      {by.kind === "tangent" && (
        <>
          <RefField
            store={store}
            name="Round face"
            hint="click a round face"
            take={["face"]}
            value={by.face}
            options={[]}
            onChoose={() => {}}
            onPick={(m, t) => {
              const face = asFace(m, t);
              if (face) set({ ...by, face });
            }}
          />
          {plane("Parallel to", by.beside, (beside) => set({ ...by, beside }))}
          <Tick label="on the other side" on={by.far === true} onChange={(far) => set({ ...by, far })} />
        </>
      )}
    </CardFrame>
  );
}

export function AxisStepCard({ store, draft, change }: CardProps<AxisStep>) {
  const { plane, axis, point } = useFields(store),
    { by } = draft,
    origin: PointRef = { point: "origin" };
  const set = (b: AxisStep["by"]) => change((d) => ({ ...d, by: b }));
  return (
    <CardFrame store={store} draft={draft} title="Datum axis">
      <Choice
        small
        label="How"
        value={by.kind}
        of={[
          ["of", "Edge or face"],
          ["points", "Two points"],
          ["planes", "Two planes"],
          ["square", "Square to a plane"],
        ]}
        onChange={(k) =>
          set(
            k === "of"
              ? { kind: k, of: { axis: "z" } }
              : k === "points"
                ? { kind: k, a: origin, b: origin }
                : k === "planes"
                  ? { kind: k, a: { datum: "front" }, b: { datum: "right" } }
                  : { kind: k, plane: { datum: "top" }, through: origin },
          )
        }
      />
      {by.kind === "of" && axis("Of", by.of, (of) => set({ ...by, of }))}
      {by.kind === "points" && (
        <>
          {point("From", by.a, (a) => set({ ...by, a }))}
          {point("to", by.b, (b) => set({ ...by, b }))}
        </>
      )}
      {by.kind === "planes" && (
        <>
          {plane("Plane", by.a, (a) => set({ ...by, a }))}
          {plane("and", by.b, (b) => set({ ...by, b }))}
        </>
      )}
      {by.kind === "square" && (
        <>
          {plane("Square to", by.plane, (p) => set({ ...by, plane: p }))}
          {point("Through", by.through, (through) => set({ ...by, through }))}
        </>
      )}
    </CardFrame>
  );
}

export function PointStepCard({ store, draft, change }: CardProps<PointStep>) {
  const { point } = useFields(store),
    { by } = draft;
  const set = (b: PointStep["by"]) => change((d) => ({ ...d, by: b }));
  return (
    <CardFrame store={store} draft={draft} title="Datum point">
      <Choice
        small
        label="How"
        value={by.kind}
        of={[
          ["at", "At coordinates"],
          ["of", "Corner or edge"],
        ]}
        onChange={(k) => set(k === "at" ? { kind: k, at: [0, 0, 0] } : { kind: k, of: { point: "origin" } })}
      />
      {by.kind === "at" &&
        by.at.map((v, i) => (
          <SizeInput
            key={i}
            store={store}
            label={"XYZ"[i]!}
            value={v}
            onChange={(t) => set({ ...by, at: by.at.map((x, k) => (k === i ? t : x)) as typeof by.at })}
          />
        ))}
      {by.kind === "of" && point("Of", by.of, (of) => set({ ...by, of }))}
    </CardFrame>
  );
}
