/** How a run of the machine stands. */
export const RUN_STATES = ["queued", "running", "done", "failed", "replaced"] as const;
export type RunState = (typeof RUN_STATES)[number];

/**
 * What happens to a run: it is begun (once more, after its process died), ends well or in trouble, goes back into the
 * queue, is stopped by hand, gives way to another of the same thing, or is buried since its process died each time.
 */
export const RUN_EVENTS = ["begin", "finish", "fail", "again", "stop", "replace", "bury"] as const;
export type RunEvent = (typeof RUN_EVENTS)[number];

/** The whole life of a run: what is not here does not happen. What has ended stays as it is. */
const LIFE: Record<RunState, Partial<Record<RunEvent, RunState>>> = {
  queued: { begin: "running", stop: "failed", replace: "replaced", bury: "failed" },
  running: {
    begin: "running",
    finish: "done",
    fail: "failed",
    again: "queued",
    stop: "failed",
    replace: "replaced",
    bury: "failed",
  },
  done: {},
  failed: {},
  replaced: {},
};

/** How a run stands after something has happened; undefined where it does not happen to one that stands so. */
export const after = (state: RunState, event: RunEvent): RunState | undefined => LIFE[state][event];

/** In which states something can happen to a run, and how it stands then: the same from each of them. */
export function happening(event: RunEvent): { readonly from: readonly RunState[]; readonly to: RunState } {
  const from = RUN_STATES.filter((s) => after(s, event) !== undefined);
  return { from, to: after(from[0]!, event)! };
}

/** Only who began a run last may say how it goes on: what others say of it comes too late. */
export const NEEDS_TICKET: ReadonlySet<RunEvent> = new Set(["finish", "fail", "again"]);

/** How a try stands: its run, as its student and its marker are told. */
export type SubmissionState = "queued" | "checking" | "checked" | "failed" | "replaced";
