import type { Exercise } from "@/core/check/exercise/exercise";
import { isSame } from "@/core/units/same";
import { done, type Outcome } from "@/core/units/refusal";
import { atOdds, readWithThings, thingsAt, thingsOf, type Things } from "./things";

/** An exercise that several change: each thing carries the version that changed it last, also where it is gone. */
export interface Stamped {
  readonly document: Exercise;
  readonly version: number;
  readonly stamps: Readonly<Record<string, number>>;
}

/** What has changed since a version. */
export const changedSince = ({ document, stamps }: Omit<Stamped, "version">, version: number): Things =>
  thingsAt(
    document,
    Object.keys(stamps).filter((place) => stamps[place]! > version),
  );

/** What becomes of changes. */
export interface Merged {
  readonly now: Stamped;
  /** What others have changed since the version they stood on. */
  readonly theirs: Things;
  /** Places that both have changed, not alike: then nothing of one's own is taken. */
  readonly odds: readonly string[];
  /** What was written. */
  readonly written: Things;
}

/** Changes things of an exercise that may have gone on meanwhile. @param base the version that they stood on */
export function merged(now: Stamped, things: Things, base: number): Outcome<Merged> {
  const since = changedSince(now, base);
  const odds = atOdds(things, since);
  if (odds.length) return done({ now, theirs: since, odds, written: {} });
  const was = thingsOf(now.document);
  const written = Object.fromEntries(Object.entries(things).filter(([p, v]) => !isSame(was.get(p) ?? null, v)));
  const next = readWithThings(now.document, written);
  if (!next.ok) return next;
  const places = Object.keys(written);
  const version = places.length ? now.version + 1 : now.version;
  const stamps = { ...now.stamps, ...Object.fromEntries(places.map((p) => [p, version])) };
  const theirs = Object.fromEntries(Object.entries(since).filter(([place]) => !(place in things)));
  return done({ now: { document: next.value, version, stamps }, theirs, odds, written });
}
