"use client";

import type { ShellStep } from "@/core/part/steps/shell/schema";
import type { FaceRef } from "@/core/naming/reference";
import { CardFrame, Picks, calledApart, calledIn, SizeInput, Tick, type CardProps } from "./card";
import { asFace } from "./options";

/** The card of a shell: faces to open, the wall, and faces whose wall is another. */
export function ShellCard({ store, draft, change }: CardProps<ShellStep>) {
  const same = (a: FaceRef, b: FaceRef) => a.face === b.face && JSON.stringify(a.at) === JSON.stringify(b.at);
  const open = (m: Parameters<typeof asFace>[0], t: Parameters<typeof asFace>[1]) => {
    const ref = asFace(m, t);
    if (ref)
      change((d) => ({
        ...d,
        open: d.open.some((o) => same(o, ref)) ? d.open.filter((o) => !same(o, ref)) : [...d.open, ref],
      }));
  };
  const others = draft.others ?? [];
  const setOthers = (next: typeof others) =>
    change((d) => {
      const { others: _, ...rest } = d;
      return next.length ? { ...rest, others: next } : rest;
    });
  return (
    <CardFrame store={store} draft={draft} title="Shell">
      <SizeInput
        store={store}
        autoFocus
        label="Wall thickness"
        value={draft.thickness}
        onChange={(thickness) => change((d) => ({ ...d, thickness }))}
      />
      <Tick
        label="the wall stands outside"
        on={draft.outward === true}
        onChange={(on) =>
          change((d) => {
            const { outward: _, ...rest } = d;
            return on ? { ...rest, outward: true } : rest;
          })
        }
      />
      <Picks
        store={store}
        name="Open faces"
        first
        hint="click faces"
        take={["face"]}
        items={calledApart(store, draft.open)}
        onPick={open}
        onRemove={(i) => change((d) => ({ ...d, open: d.open.filter((_, k) => k !== i) }))}
      />
      <Picks
        store={store}
        name="Faces with another wall"
        hint="click flat faces"
        take={["face"]}
        items={others.map((o) => calledIn(store, o.face))}
        onPick={(m, t) => {
          const face = asFace(m, t);
          if (face && !others.some((o) => same(o.face, face)))
            setOthers([...others, { face, thickness: draft.thickness }]);
        }}
        onRemove={(i) => setOthers(others.filter((_, k) => k !== i))}
      />
      {others.map((o, i) => (
        <SizeInput
          key={i}
          store={store}
          label={`Wall of ${calledIn(store, o.face)}`}
          value={o.thickness}
          onChange={(thickness) => setOthers(others.map((x, k) => (k === i ? { ...x, thickness } : x)))}
        />
      ))}
    </CardFrame>
  );
}
