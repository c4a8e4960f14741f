"use client";

import type { HoleStep } from "@/core/part/steps/hole/schema";
import { SizeInput, Tick, type CardProps } from "./card";

/** The thread of a hole: a note. @param usual the thread that goes with its size of a table */
export function HoleThread({
  store,
  draft,
  change,
  usual = "M6",
}: CardProps<HoleStep> & { usual?: string | undefined }) {
  const unit = store((s) => s.history.present.units);
  return (
    <>
      <Tick
        label="threaded (a note on the hole; the thread is not cut)"
        on={draft.thread !== undefined}
        onChange={(on) =>
          change((d) => {
            const { thread: _, ...rest } = d;
            return on ? { ...rest, thread: { name: usual } } : rest;
          })
        }
      />
      {draft.thread && (
        <div className="flex flex-wrap items-end gap-x-3 gap-y-1.5">
          <label className="text-xs">
            <span className="quiet block">Thread</span>
            <input
              aria-label="Thread"
              className="input input-sm w-24"
              maxLength={40}
              value={draft.thread.name}
              onChange={(e) => change((d) => (d.thread ? { ...d, thread: { ...d.thread, name: e.target.value } } : d))}
            />
          </label>
          <span className="whitespace-nowrap pb-2">
            <Tick
              label="all the way"
              on={draft.thread.depth === undefined}
              onChange={(on) =>
                change((d) => {
                  if (!d.thread) return d;
                  const { depth: _, ...rest } = d.thread;
                  return { ...d, thread: on ? rest : { ...rest, depth: unit === "mm" ? "8" : "3/8" } };
                })
              }
            />
          </span>
          {draft.thread.depth !== undefined && (
            <SizeInput
              store={store}
              label="Depth of thread"
              value={draft.thread.depth}
              onChange={(depth) => change((d) => (d.thread ? { ...d, thread: { ...d.thread, depth } } : d))}
            />
          )}
        </div>
      )}
    </>
  );
}
