import { OUTLINES } from "./stories/outlines";
import { STEPS } from "./stories/steps";
import type { Story } from "./stories/story";

export const STORIES: readonly Story[] = [...OUTLINES, ...STEPS];
