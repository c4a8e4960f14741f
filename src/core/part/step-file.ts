import { done, refuse, type Outcome } from "@/core/units/refusal";
import { readStep } from "@/core/kernel/exchange";
import { KernelFault, type Kernel } from "@/core/kernel/opencascade";
import { isValid } from "@/core/kernel/properties";
import { explore, type Solid } from "@/core/kernel/solid";

/** Faces a file may have: far more than a part of an exercise, far fewer than what holds a worker up. */
const MOST_FACES = 6_000;
/** Places of parts in an assembly: each may hold all that the others do. */
const MOST_PLACES = 40;
/** Lists in lists in a file of a part go a few deep; deeper ones end the reader's stack. */
const DEEPEST = 60;

/** What can be told of a STEP file before the library reads it; undefined: nothing speaks against it. */
function troubleIn(text: string): string | undefined {
  if (!/^\s*ISO-10303-21\s*;/.test(text)) return "This is no STEP file (ISO 10303-21).";
  if (!/END-ISO-10303-21\s*;/.test(text)) return "The STEP file is cut off: its end is missing.";
  const count = (what: RegExp) => text.match(what)?.length ?? 0;
  if (count(/\b(ADVANCED_FACE|FACE_SURFACE)\s*\(/g) > MOST_FACES)
    return `The file has more than ${MOST_FACES} faces. Hand in the part alone, without patterns of small things.`;
  if (count(/\b(NEXT_ASSEMBLY_USAGE_OCCURRENCE|MAPPED_ITEM)\s*\(/g) > MOST_PLACES)
    return "The file holds an assembly of many parts. Hand in the one part.";
  if (/[(,]\s*[+-]?(NAN|INF)/i.test(text)) return "The file holds numbers that are none.";
  return isDeep(text) ? "The file's lists go deeper than those of a part." : undefined;
}

function isDeep(text: string): boolean {
  let depth = 0,
    inText = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 39) inText = !inText;
    else if (inText) continue;
    else if (c === 40 && ++depth > DEEPEST) return true;
    else if (c === 41) depth--;
    else if (c === 59) depth = 0;
  }
  return false;
}

/**
 * Reads the sound solid of a STEP file. Every way a file can be wrong comes back as a sentence.
 * @returns the solid, which the caller releases
 */
export function readSoundStep(kernel: Kernel, text: string): Outcome<Solid> {
  const trouble = troubleIn(text);
  if (trouble) return refuse("bad-file", trouble);
  try {
    const solid = readStep(kernel, text);
    const give = (sentence: string): Outcome<never> => {
      kernel.release(solid.shape);
      return refuse("bad-file", sentence);
    };
    if (solid.shape.IsNull() || !solid.names.length) return give("The STEP file holds no shape.");
    if (solid.names.length > MOST_FACES) return give(`The file has more than ${MOST_FACES} faces.`);
    const bodies = explore(kernel, solid.shape, "SOLID");
    kernel.release(...bodies);
    if (!bodies.length) return give("The STEP file holds surfaces, but no solid body.");
    if (!isValid(kernel, solid.shape)) return give("The body in the STEP file is not sound: its faces do not close.");
    return done(solid);
  } catch (e) {
    if (e instanceof KernelFault || e instanceof RangeError)
      return refuse("bad-file", "The STEP file cannot be read: it is damaged, or holds what no part does.");
    throw e;
  }
}
