import { bodyOf } from "@/core/sizes/body";
import { disturbances, shiftOf } from "@/core/sizes/disturb";
import { drivingNumbers, withSketchesDefined } from "@/core/sizes/numbers";
import { TOUCHING } from "@/core/sizes/tolerance";
import { freeFaces } from "./free";
import type { CheckContext } from "../kinds/context";
import { wholeOf } from "../given/measured";

/**
 * How many freedoms of each sketch only move what the exercise leaves free. What is loose is given sizes as it stands;
 * each is changed by a hair, and where nothing but free faces goes along the freedom costs nothing.
 * @returns freedoms by the id of the sketch's step
 */
export function freeMotions(context: CheckContext): ReadonlyMap<string, number> {
  const { kernel, submission, comparison } = context;
  const { document, properties } = submission,
    { faces } = wholeOf(submission);
  const found = new Map<string, number>();
  const free = freeFaces(context);
  if (!free.size || !document || !properties) return found;
  const defined = withSketchesDefined(document);
  if (defined === document) return found;
  const known = new Set(drivingNumbers(document).map((n) => n.id));
  const body = bodyOf(faces, properties.box);
  // which faces of the reference each face of the part stands for
  const stands = faces.map((_, k) => comparison.faces.faces.flatMap((f, i) => ("at" in f && f.at === k ? [i] : [])));
  const keys = faces.flatMap((s) => s.keys);
  const changes = disturbances(kernel, defined, body, keys, undefined, (n) => !known.has(n.id));
  for (const { number, on } of changes) {
    const moved = faces.flatMap((s, k) => (shiftOf(s.carrier, on(s.keys[0]!), body.size) > TOUCHING ? [k] : []));
    const isFree =
      moved.length > 0 && moved.every((k) => stands[k]!.length > 0 && stands[k]!.every((i) => free.has(i)));
    if (isFree && number.step) found.set(number.step, (found.get(number.step) ?? 0) + 1);
  }
  return found;
}
