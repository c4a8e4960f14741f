import type { Exercise } from "@/core/check/exercise/exercise";
import { bracketExercise, footExercise, spacerExercise } from "./exercises";

const range = (number: string, from: number, to: number, step: number) => ({ number, values: { from, to, step } });

/**
 * The spacer of WS-04 with bore, groove and its place of each student's own: 100 different parts. Turned over the
 * spacer is itself but for its groove, so that lies in one half only.
 */
export const ownSpacerExercise = (): Exercise => ({
  ...spacerExercise(),
  number: "WS-14",
  title: "Spacer of one's own",
  brief: "Turn the spacer from your own Sheet: bore, groove and its place differ from student to student.",
  varies: [range("sketch1:m3", 12, 18, 2), range("sketch2:m2", 26, 30, 1), range("sketch2:m5", 17, 21, 1)],
});

/** The tripod's foot with another height, base hole and pitch of screws for each: 100 different parts. */
export const ownFootExercise = (): Exercise => ({
  ...footExercise(),
  number: "WS-18",
  title: "Foot of one's own",
  varies: [range("extrude1:extent.depth", 44, 60, 4), range("sketch2:m3", 14, 20, 2), range("sketch3:m5", 20, 28, 2)],
});

/** The mast bracket with another length, thickness and rounding for each: 90 different parts. */
export const ownBracketExercise = (): Exercise => ({
  ...bracketExercise(),
  number: "WS-13",
  title: "Bracket of one's own",
  sheet: { ...bracketExercise().sheet, notes: "" },
  varies: [
    range("sketch1:m1", 70, 78, 2),
    range("sketch1:m2", 40, 50, 2),
    { number: "fillet1:groups.0.radius", values: { of: [5, 6, 7] } },
  ],
});
