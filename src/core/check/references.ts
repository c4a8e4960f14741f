import { distance3 } from "@/core/geometry/vector";
import { copied } from "@/core/kernel/boolean";
import type { Mesh } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { sizesOf } from "@/core/sizes/sizes";
import type { Size } from "@/core/sizes/size";
import type { LengthUnit } from "@/core/units/quantity";
import { displayMesh } from "./facets/display-mesh";
import { namedBody, type NamedBody } from "./findings/findings";
import type { CheckContext } from "./kinds/context";
import { measurePart, type Tell } from "./given/measured";

type Whole = CheckContext["reference"];
interface Kept {
  readonly measured: Whole;
  readonly mesh: Mesh;
  /** What its things are called, in either unit. */
  readonly named: Map<LengthUnit, NamedBody>;
}

/** A reference as it is handed out. */
interface Taken {
  readonly measured: Whole;
  readonly mesh: Mesh;
  readonly named: NamedBody;
}

/**
 * References built and measured, kept between checks: a class of thirty costs thirty submissions, not sixty builds.
 * What is handed out is a copy, because booleans now and then spoil what they work on.
 */
export class References {
  private readonly kept = new Map<string, Kept>();
  private readonly proposed = new Map<string, readonly Size[]>();

  /** @param most so many are kept, those used last */
  constructor(
    private readonly kernel: Kernel,
    private readonly most = 6,
  ) {}

  /** The sizes proposed for a reference, found once. */
  sizes(document: PartDocument, tell: Tell): readonly Size[] {
    const key = JSON.stringify(document);
    const known = this.proposed.get(key);
    if (known) return known;
    const r = sizesOf(this.kernel, document, (done, of) =>
      tell(`the reference: following its numbers, ${done} of ${of}`),
    );
    const sizes = r.ok ? r.value.sizes : [];
    this.proposed.set(key, sizes);
    const [oldest] = this.proposed.keys();
    if (this.proposed.size > this.most + 1 && oldest !== undefined) this.proposed.delete(oldest);
    return sizes;
  }

  /** @returns the reference, whose solid the caller releases; undefined where it cannot be built */
  take(document: PartDocument, unit: LengthUnit, tell: Tell): Taken | undefined {
    const key = JSON.stringify(document);
    let found = this.kept.get(key);
    if (!found) {
      const { solid, properties, ...rest } = measurePart(this.kernel, document, tell);
      if (!solid || !properties) return undefined;
      const size = distance3(properties.box.min, properties.box.max);
      found = {
        measured: { ...rest, solid, properties },
        mesh: displayMesh(this.kernel, solid, size),
        named: new Map(),
      };
    }
    // also where nothing is kept: the last digits of a boolean hang on which of the two it is given
    const solid = copied(this.kernel, found.measured.solid);
    // used last stands last
    this.kept.delete(key);
    this.kept.set(key, found);
    for (const [old, { measured }] of this.kept) {
      if (this.kept.size <= this.most) break;
      this.kept.delete(old);
      this.kernel.release(measured.solid.shape);
    }
    let named = found.named.get(unit);
    if (!named) found.named.set(unit, (named = namedBody(found.measured, { unit })));
    return { mesh: found.mesh, measured: { ...found.measured, solid }, named };
  }
}
