"use client";

import { parseEdge } from "@/core/naming/names";
import { withStepsCalled } from "@/core/naming/words";
import { faceText } from "@/core/part/reference/text";
import type { BenchStore } from "../store";
import type { ChamferStep } from "@/core/part/steps/chamfer/schema";
import { CardFrame, Choice, SizeInput, Tick, type CardProps } from "./card";
import { EdgeGroups } from "./edge-groups";

type ChamferEdge = ChamferStep["groups"][number]["edges"][number];
type Sized = ChamferStep["groups"][number]["size"];

const isSwapped = (size: Sized, edge: ChamferEdge): boolean =>
  size.kind !== "equal" && (size.swap === true) !== (edge.swap === true);

/** The face that the first distance lies on, as it is called. */
function firstFace(store: BenchStore, edge: ChamferEdge, turned: boolean): string {
  const face = parseEdge(edge.on.edge)[turned ? 1 : 0];
  return withStepsCalled(faceText({ face }), store.getState().history.present.steps);
}

/** The card of a chamfer: groups of edges, each with its sizes. */
export function ChamferCard({ store, draft, change }: CardProps<ChamferStep>) {
  const first = (s: Sized) => (s.kind === "two" ? s.first : s.distance);
  return (
    <CardFrame store={store} draft={draft} title="Chamfer">
      <EdgeGroups
        store={store}
        groups={draft.groups}
        onChange={(groups) => change((d) => ({ ...d, groups: [...groups] }))}
        more={(g) => ({ ...g, edges: [] })}
        beside={(g, set, k, name) => {
          const edge = g.edges[k]!;
          const turned = { ...edge, swap: !edge.swap },
            which = g.size.kind === "two" ? "first distance" : "distance";
          return (
            g.size.kind !== "equal" && (
              <button
                type="button"
                className={`btn btn-ghost btn-xs btn-square ${edge.swap ? "text-accent" : ""}`}
                aria-pressed={edge.swap === true}
                aria-label={`Turn round ${name}`}
                title={`The ${which} lies on ${firstFace(store, edge, isSwapped(g.size, edge))}`}
                onClick={() => set({ ...g, edges: g.edges.map((e, i) => (i === k ? turned : e)) })}
              >
                ⇄
              </button>
            )
          );
        }}
        size={(g, set, i) => {
          const put = (size: Sized) => set({ ...g, size }),
            { size } = g;
          return (
            <>
              <Choice
                small
                label="Sizes"
                value={size.kind}
                of={[
                  ["equal", "Equal"],
                  ["two", "Two distances"],
                  ["angle", "With angle"],
                ]}
                onChange={(kind) =>
                  put(
                    kind === "equal"
                      ? { kind, distance: first(size) }
                      : kind === "two"
                        ? { kind, first: first(size), second: first(size) }
                        : { kind, distance: first(size), angle: 45 },
                  )
                }
              />
              <SizeInput
                store={store}
                autoFocus={i === 0}
                label="Distance"
                value={first(size)}
                onChange={(v) => put(size.kind === "two" ? { ...size, first: v } : { ...size, distance: v })}
              />
              {size.kind !== "equal" && g.edges[0] && (
                <p className="quiet text-xs">
                  The {size.kind === "two" ? "first" : ""} distance lies on{" "}
                  {firstFace(store, g.edges[0], isSwapped(size, g.edges[0]))}
                  {g.edges.length > 1 && ", of the first edge"}. ⇄ turns one edge round.
                </p>
              )}
              {size.kind === "two" && (
                <SizeInput
                  store={store}
                  label="On the other face"
                  value={size.second}
                  onChange={(second) => put({ ...size, second })}
                />
              )}
              {size.kind === "angle" && (
                <SizeInput
                  store={store}
                  angle
                  label="Angle"
                  value={size.angle}
                  onChange={(angle) => put({ ...size, angle })}
                />
              )}
              {size.kind !== "equal" && (
                <Tick
                  label="swap the two faces for the whole group"
                  on={size.swap === true}
                  onChange={(swap) => put({ ...size, swap })}
                />
              )}
            </>
          );
        }}
      />
    </CardFrame>
  );
}
