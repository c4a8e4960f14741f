import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from "three";
import { MeshBVH } from "three-mesh-bvh";
import { cross3, dot3, length3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";

/** Triangles by corners: x y z after each other, and three indices a triangle. mm. */
export interface Net {
  readonly positions: Float32Array;
  readonly triangles: Uint32Array;
}

/** The nearest place on a net. */
interface Nearest {
  readonly distance: number;
  readonly triangle: number;
  readonly at: Vec3;
}

/** Normals whose cosine is larger look about the same way. */
export const SAME_FACING = 0.5;

/** The other side of a wall lies straight through it, within some 20°. */
const STRAIGHT = 0.94;

/** Finds the nearest places on a net, in a tree of boxes around its triangles. */
export class NearestOn {
  private readonly tree: MeshBVH;
  private readonly asked = new Vector3();
  private readonly ray = new Ray();
  private readonly found = { point: new Vector3(), distance: 0, faceIndex: 0 };

  constructor(readonly net: Net) {
    const { positions, triangles } = net;
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(positions, 3));
    geometry.setIndex(new BufferAttribute(triangles, 1));
    // the triangles stay in their order: what is found is told by it
    this.tree = new MeshBVH(geometry, { indirect: true });
  }

  /** @param p a point, mm @param within farther places need not be found */
  find(p: Vec3, within = Infinity): Nearest | undefined {
    this.asked.set(...p);
    const r = this.tree.closestPointToPoint(this.asked, this.found, 0, within);
    if (!r) return undefined;
    const { x, y, z } = r.point;
    return { distance: r.distance, triangle: r.faceIndex, at: [x, y, z] };
  }

  /**
   * The nearest place on triangles that look about the same way: beside an edge the nearest of all may look another.
   * @param facing unit normal @param within no farther than this, mm
   */
  findFacing(p: Vec3, facing: Vec3, within: number): Nearest | undefined {
    const asked = this.asked.set(...p),
      on = new Vector3();
    let best: Nearest | undefined;
    this.tree.shapecast({
      intersectsBounds: (box) => box.distanceToPoint(asked) <= (best?.distance ?? within),
      intersectsTriangle: (corners, triangle) => {
        if (dot3(this.normal(triangle), facing) < SAME_FACING) return false;
        corners.closestPointToPoint(asked, on);
        const distance = on.distanceTo(asked);
        if (distance <= (best?.distance ?? within)) best = { distance, triangle, at: [on.x, on.y, on.z] };
        return false;
      },
    });
    return best;
  }

  /** The triangle of those that are meant which is nearest; asked outwards in growing balls. */
  findAmong(p: Vec3, isMeant: (triangle: number) => boolean): number | undefined {
    const asked = this.asked.set(...p),
      on = new Vector3();
    let best: number | undefined,
      least = Infinity;
    this.tree.shapecast({
      intersectsBounds: (box) => box.distanceToPoint(asked) <= least,
      intersectsTriangle: (corners, triangle) => {
        if (!isMeant(triangle)) return false;
        corners.closestPointToPoint(asked, on);
        const distance = on.distanceTo(asked);
        if (distance < least) [best, least] = [triangle, distance];
        return false;
      },
    });
    return best;
  }

  /**
   * How far it is through the material from a place on the net to the nearest that looks the other way.
   * @param normal out of the material there @param opposite cosines up to this are the other way
   * @returns mm, less than `within`; undefined where there is none
   */
  through(from: Vec3, normal: Vec3, opposite: number, within: number): number | undefined {
    const asked = this.asked.set(...from),
      on = new Vector3();
    let best: number | undefined;
    this.tree.shapecast({
      intersectsBounds: (box) => box.distanceToPoint(asked) < (best ?? within),
      intersectsTriangle: (corners, triangle) => {
        if (dot3(this.normal(triangle), normal) > opposite) return false;
        corners.closestPointToPoint(asked, on);
        const distance = on.distanceTo(asked);
        const deep = -dot3([on.x - from[0], on.y - from[1], on.z - from[2]], normal);
        // what lies beside it is another wall's side
        if (deep > STRAIGHT * distance && distance > 0 && distance < (best ?? within)) best = distance;
        return false;
      },
    });
    return best;
  }

  /** Whether a ray meets the net. @param way unit */
  meets(from: Vec3, way: Vec3): boolean {
    this.ray.origin.set(...from);
    this.ray.direction.set(...way);
    return this.tree.raycastFirst(this.ray, DoubleSide) !== null;
  }

  /** Unit normal of a triangle, out of the material. */
  normal(triangle: number): Vec3 {
    const [a, b, c] = cornersOfNet(this.net, triangle);
    const n = cross3(sub3(b, a), sub3(c, a)),
      l = length3(n);
    return l ? scale3(n, 1 / l) : [0, 0, 1];
  }
}

/** The corners of a triangle of a net. */
export const cornersOfNet = (
  { positions: p, triangles: t }: { readonly positions: ArrayLike<number>; readonly triangles: ArrayLike<number> },
  k: number,
): [Vec3, Vec3, Vec3] => {
  const at = (i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
  return [at(t[3 * k]!), at(t[3 * k + 1]!), at(t[3 * k + 2]!)];
};
