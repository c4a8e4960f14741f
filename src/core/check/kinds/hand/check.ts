import type { HandEvidence } from "./kind";

/** Nothing is known before somebody has looked. */
export const checkHand = (): HandEvidence => ({ check: "hand", verdict: "unknown", off: 0 });
