import { EXTRUDED } from "./solids/extruded";
import { PLAIN } from "./solids/plain";
import { HOLES } from "./solids/holes";
import { ROUNDED } from "./solids/rounded";
import { HOLLOW } from "./solids/hollow";
import { REACHING } from "./solids/reaching";
import type { KnownSolid } from "./solids/known";

/** Every known solid, by what makes it. */
export const SOLIDS: readonly KnownSolid[] = [...EXTRUDED, ...PLAIN, ...HOLES, ...ROUNDED, ...HOLLOW, ...REACHING];
