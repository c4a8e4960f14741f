import type { Exercise } from "@/core/check/exercise/exercise";
import type { PartDocument } from "@/core/part/document";
import {
  armExercise,
  bracketExercise,
  footExercise,
  housingExercise,
  hubExercise,
  spacerExercise,
} from "@/demo/exercises";
import { armSubmissions, footSubmissions } from "@/demo/people";

const slug = (name: string) => name.toLowerCase().replace(/\W+/g, "-");

export const demoExercises = (): [string, Exercise][] => [footExercise(), armExercise()].map((e) => [slug(e.title), e]);
/** Parts of the weather station built with more than sketches and prisms. */
export const solidExercises = (): [string, Exercise][] =>
  [spacerExercise(), bracketExercise(), housingExercise(), hubExercise()].map((e) => [slug(e.title), e]);
export const demoSubmissions = (): [string, Exercise, PartDocument][] =>
  [[footExercise(), footSubmissions()] as const, [armExercise(), armSubmissions()] as const].flatMap(([e, all]) =>
    [...all].map(([name, part]): [string, Exercise, PartDocument] => [`${slug(e.title)}:${slug(name)}`, e, part]),
  );
