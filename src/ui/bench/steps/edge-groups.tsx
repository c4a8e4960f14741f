"use client";

import type { ReactNode } from "react";
import type { StepEdge } from "@/core/part/steps/fields";
import type { BenchStore } from "../store";
import { Picks, calledApart } from "./card";
import { asEdge, freeId } from "./options";

type Group = { readonly edges: StepEdge[] };

/**
 * Groups of edges, each with sizes of its own; a click on an edge puts it into the active group, once more takes it
 * out.
 */
export function EdgeGroups<G extends Group>({
  store,
  groups,
  onChange,
  more,
  size,
  beside,
}: {
  store: BenchStore;
  groups: readonly G[];
  onChange: (groups: readonly G[]) => void;
  more: (g: G) => G;
  size: (g: G, set: (g: G) => void, i: number) => ReactNode;
  /** What stands beside an edge of a group. */
  beside?: (g: G, set: (g: G) => void, edge: number, name: string) => ReactNode;
}) {
  const put = (i: number, g: G) => onChange(groups.map((o, k) => (k === i ? g : o)));
  const name = (i: number) => (groups.length > 1 ? `Edges of group ${i + 1}` : "Edges");
  const toggle = (i: number) => (m: Parameters<typeof asEdge>[0], t: Parameters<typeof asEdge>[1]) => {
    const on = asEdge(m, t);
    if (!on) return;
    const all = groups.flatMap((g) => g.edges),
      known = groups.findIndex((g) =>
        g.edges.some((e) => e.on.edge === on.edge && JSON.stringify(e.on.at) === JSON.stringify(on.at)),
      );
    const without = groups.map((g) => ({
      ...g,
      edges: g.edges.filter((e) => !(e.on.edge === on.edge && JSON.stringify(e.on.at) === JSON.stringify(on.at))),
    }));
    // in another group already: it goes over
    onChange(
      known === i
        ? without
        : without.map((g, k) => (k === i ? { ...g, edges: [...g.edges, { id: freeId("e", all), on }] } : g)),
    );
  };
  return (
    <>
      {groups.map((g, i) => (
        <div key={i} className="space-y-1.5 border-b border-base-300 pb-2">
          {size(g, (n) => put(i, n), i)}
          <Picks
            store={store}
            id={`group ${i}`}
            name={name(i)}
            first
            hint="click edges"
            take={["edge"]}
            items={calledApart(
              store,
              g.edges.map((e) => e.on),
            )}
            beside={beside && ((k, text) => beside(g, (n) => put(i, n), k, text))}
            onPick={toggle(i)}
            onRemove={(k) => put(i, { ...g, edges: g.edges.filter((_, n) => n !== k) })}
          />
          {groups.length > 1 && (
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              onClick={() => onChange(groups.filter((_, k) => k !== i))}
            >
              Take group out
            </button>
          )}
        </div>
      ))}
      <button
        type="button"
        className="btn btn-xs"
        onClick={() => {
          // the next edges are the new group's
          store.getState().setPickField(undefined);
          onChange([...groups, more(groups[groups.length - 1]!)]);
        }}
      >
        Another group
      </button>
    </>
  );
}
