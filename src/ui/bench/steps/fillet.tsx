"use client";

import type { FilletStep } from "@/core/part/steps/fillet/schema";
import { CardFrame, SizeInput, type CardProps } from "./card";
import { EdgeGroups } from "./edge-groups";

/** The card of a fillet: groups of edges, each with its radius. */
export function FilletCard({ store, draft, change }: CardProps<FilletStep>) {
  return (
    <CardFrame store={store} draft={draft} title="Fillet">
      <EdgeGroups
        store={store}
        groups={draft.groups}
        onChange={(groups) => change((d) => ({ ...d, groups: [...groups] }))}
        more={(g) => ({ ...g, edges: [] })}
        size={(g, set, i) => (
          <SizeInput
            store={store}
            autoFocus={i === 0}
            label="Radius"
            value={g.radius}
            onChange={(radius) => set({ ...g, radius })}
          />
        )}
      />
      <p className="quiet text-xs">A rounding runs on along edges that go on without a corner.</p>
    </CardFrame>
  );
}
