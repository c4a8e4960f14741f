/** What a name in a sketch stands for, as relations ask for it. */
export type EntityType = "point" | "line" | "circle" | "arc" | "ellipse" | "spline";
