import type { Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "./opencascade";

export const point = (kernel: Kernel, p: Vec3) => new kernel.library.gp_Pnt(p[0], p[1], p[2]);
export const direction = (kernel: Kernel, p: Vec3) => new kernel.library.gp_Dir(p[0], p[1], p[2]);
