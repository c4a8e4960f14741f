import { defaultRubric, type Exercise } from "@/core/check/exercise";
import { ALUMINIUM, STEEL, tripodFoot, vaneArm } from "./parts";

export const footExercise = (): Exercise => ({
  format: "caliper-exercise", version: 1, number: "WS-08", title: "Tripod foot",
  brief: "Model the foot of the weather station's tripod from its Sheet. One solid, every sketch fully defined, holes through.",
  units: "mm", material: STEEL, reference: tripodFoot(),
  tolerances: { volume: 0.002, mass: 0.005, shape: 0.001 },
  rubric: defaultRubric(),
  sheet: { projection: "first-angle", printMass: true, printVolume: false, notes: "Break all edges. General tolerances ISO 2768-m." },
});

export const armExercise = (): Exercise => ({
  format: "caliper-exercise", version: 1, number: "WS-05", title: "Vane arm",
  brief: "Model the arm that carries the wind vane. Sizes are in inches; the boss takes the counterweight.",
  units: "in", material: ALUMINIUM, reference: vaneArm(),
  tolerances: { volume: 0.002, mass: 0.005, shape: 0.001 },
  rubric: defaultRubric(),
  sheet: { projection: "third-angle", printMass: false, printVolume: false, notes: "Remove burrs." },
});
