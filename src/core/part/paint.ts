import type { Paint } from "@/core/kernel/exchange";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import type { PartDocument } from "./document";
import { findFace } from "./reference/find";

/** The colours of a built body: of those faces that are still there. */
export function paintOf(kernel: Kernel, document: Pick<PartDocument, "colours">, body: Solid): Paint {
  const { body: whole, faces = [] } = document.colours ?? {};
  if (!faces.length) return whole ? { body: whole } : {};
  return Topology.over(kernel, body, (t) => ({
    ...(whole && { body: whole }),
    faces: new Map(
      faces.flatMap(({ on, colour }) => {
        const f = findFace(t, on);
        return f.ok ? [[f.value, colour] as const] : [];
      }),
    ),
  }));
}
