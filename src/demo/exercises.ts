import type { Exercise } from "@/core/check/exercise/exercise";
import { defaultRubric, newLine } from "@/core/check/exercise/rubric";
import type { Kernel } from "@/core/kernel/opencascade";
import { arranged } from "./arranged";
import { ALUMINIUM, STEEL, tripodFoot, vaneArm } from "./parts";
import { cordPulley, counterweight, glandPlate } from "./sheet-parts";
import { anemometerHub, bearingSpacer, BRASS, mastBracket, POLYMER, sensorHousing } from "./solid-parts";

export const footExercise = (): Exercise => ({
  format: "caliper-exercise",
  version: 1,
  number: "WS-08",
  title: "Tripod foot",
  brief:
    "Model the foot of the weather station's tripod from its Sheet. One solid, every sketch fully defined, " +
    "holes through.",
  units: "mm",
  material: STEEL,
  reference: tripodFoot(),
  tolerances: { volume: 0.002, mass: 0.005, shape: 0.001 },
  rubric: defaultRubric(),
  sheet: {
    projection: "first-angle",
    printMass: true,
    printVolume: false,
    notes: "Break all edges.",
  },
});

export const armExercise = (): Exercise => ({
  format: "caliper-exercise",
  version: 1,
  number: "WS-05",
  title: "Vane arm",
  brief: "Model the arm that carries the wind vane. Sizes are in inches; the boss takes the counterweight.",
  units: "in",
  material: ALUMINIUM,
  reference: vaneArm(),
  tolerances: { volume: 0.002, mass: 0.005, shape: 0.001 },
  rubric: defaultRubric(),
  sheet: { projection: "third-angle", printMass: false, printVolume: false, notes: "Remove burrs.", fractions: true },
});

const solidExercise = (
  number: string,
  title: string,
  brief: string,
  material: Exercise["material"],
  reference: Exercise["reference"],
  notes: string,
): Exercise => ({
  format: "caliper-exercise",
  version: 1,
  number,
  title,
  brief,
  units: "mm",
  material,
  reference,
  tolerances: { volume: 0.002, mass: 0.005, shape: 0.001 },
  rubric: defaultRubric(),
  sheet: { projection: "first-angle", printMass: true, printVolume: false, notes },
});

export const spacerExercise = (): Exercise =>
  solidExercise(
    "WS-04",
    "Bearing spacer",
    "Turn the spacer that keeps the two bearings of the anemometer apart. Half a profile about a centre line " +
      "is enough.",
    BRASS,
    bearingSpacer(),
    "Outer rims 1.5 × 45°.",
  );
export const housingExercise = (): Exercise => {
  const plain = solidExercise(
    "WS-06",
    "Sensor housing",
    "Model the housing of the humidity sensor. Round before you hollow out, so that the wall stays even. Then type " +
      "the two figures under the Gauges.",
    POLYMER,
    sensorHousing(),
    "Wall 2 all round. Upright edges R8 outside.",
  );
  return {
    ...plain,
    questions: [
      { id: "q1", title: "Mass of the housing as drawn", asks: { what: "mass" }, tolerance: 0.005 },
      {
        id: "q2",
        title: "Volume of the housing when its wall is 3 mm",
        asks: { what: "volume" },
        after: [{ number: "shell1:thickness", value: 3 }],
        tolerance: 0.005,
      },
    ],
    rubric: [...plain.rubric, newLine("answers", 2)],
  };
};
export const hubExercise = (): Exercise =>
  solidExercise(
    "WS-02",
    "Anemometer hub",
    "Model the hub that carries the three cups. The screw holes take M5 cap screws, sunk in flush.",
    ALUMINIUM,
    anemometerHub(),
    "6 holes for M5 ISO 4762 on ⌀62. Boss R3 at its foot.",
  );
export const bracketExercise = (): Exercise =>
  solidExercise(
    "WS-03",
    "Mast bracket",
    "Model the bracket that holds the vane to the mast.",
    STEEL,
    mastBracket(),
    "Inner corner R6, outer corners R10.",
  );

/** WS-07: turned, with a detail of the boss's foot; the rounding of the rim is left to the student. */
export function pulleyExercise(kernel: Kernel): Exercise {
  const plain = solidExercise(
    "WS-07",
    "Pulley",
    "Model the pulley that the anemometer's cord runs over. The rounding of the rim is yours to choose.",
    ALUMINIUM,
    cordPulley(),
    "Rounding of the rim free.",
  );
  return arranged(kernel, plain, [
    (a) => {
      const rim =
        a.sizes.find((s) => s.kind === "radius" && s.of.length > 1) ?? a.sizes.find((s) => s.kind === "radius")!;
      return { change: "letter", id: rim.id, to: { free: true } };
    },
    (_, { composition }) => {
      const long = composition.views.find((s) => s.view.name === "long")!.view;
      // where the boss stands on the disc
      const centre: [number, number] = [(long.box.min[0] + long.box.max[0]) / 2 + 4, long.box.max[1] * 0.43];
      const look = { from: "detail" as const, of: long.key, centre, radius: 7 };
      return { change: "add-view", view: { key: "d", letter: "B", scale: 2, look } };
    },
  ]);
}

/** WS-09: a section that steps through the seat and a sunk hole, and hole notes. */
export function glandExercise(kernel: Kernel): Exercise {
  const plain = solidExercise(
    "WS-09",
    "Gland plate",
    "Model the plate that the cable gland is screwed to. Read the section before you choose what the holes are.",
    ALUMINIUM,
    glandPlate(),
    "Two cap screws M5, two countersunk screws M4.",
  );
  return arranged(kernel, { ...plain, sheet: { ...plain.sheet, paper: { name: "A3", isLying: true } } }, [
    () => ({ change: "scale", scale: 1 }),
    () => ({
      change: "add-view",
      view: {
        key: "s",
        letter: "B",
        look: { from: "section", of: "top", line: [[-4, 12], [30, 12], [30, 25], [94, 25]] }, // prettier-ignore
      },
    }),
    // a little away from the title block
    (a) => {
      const [x, y] = a.sheet.layout!.views.find((v) => v.key === "s")!.middle!;
      return { change: "view", key: "s", to: { middle: [x, y - 6] } };
    },
  ]);
}

/** WS-10: a remark where students misread. */
export function counterweightExercise(kernel: Kernel): Exercise {
  const plain = solidExercise(
    "WS-10",
    "Counterweight",
    "Turn the counterweight of the vane and drill it for its screw.",
    BRASS,
    counterweight(),
    "Drill 118°. Break all edges.",
  );
  return arranged(kernel, plain, [
    (_, { composition }) => {
      const { view } = composition.views[0]!;
      const { min, max } = view.box;
      return {
        change: "remark",
        remark: {
          id: "r1",
          text: "Depth counts to the shoulder,\nnot to the tip.",
          view: view.key,
          tip: [min[0] + (max[0] - min[0]) * 0.3, (min[1] + max[1]) / 2 + 5],
          elbow: [60, 52],
        },
      };
    },
  ]);
}
