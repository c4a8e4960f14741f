import type { Material } from "./document";

/** Common materials of a workshop; g/cm³, as data sheets round them. */
export const MATERIALS: readonly Material[] = [
  { name: "Steel S235", density: 7.85 },
  { name: "Stainless steel 1.4301", density: 7.9 },
  { name: "Cast iron EN-GJL-250", density: 7.2 },
  { name: "Aluminium 6082", density: 2.7 },
  { name: "Brass CuZn39Pb3", density: 8.47 },
  { name: "Bronze CuSn8", density: 8.8 },
  { name: "Copper Cu-ETP", density: 8.93 },
  { name: "Titanium Ti6Al4V", density: 4.43 },
  { name: "PA 12", density: 1.01 },
  { name: "POM-C", density: 1.41 },
  { name: "ABS", density: 1.05 },
  { name: "Beech", density: 0.72 },
];
