import { distance3, type Vec3 } from "@/core/geometry/vector";

/** Points filed by the cell they lie in, so that what is near a place is found without asking all. */
export class Nearby {
  private readonly cells = new Map<number, number[]>();

  /** @param reach how far apart two points may be to be called near, mm */
  constructor(
    private readonly points: readonly Vec3[],
    private readonly reach: number,
  ) {
    points.forEach((p, i) => {
      const cell = this.hash(this.along(p[0]), this.along(p[1]), this.along(p[2]));
      const there = this.cells.get(cell);
      if (there) there.push(i);
      else this.cells.set(cell, [i]);
    });
  }

  /** Cells are many times the reach: a place near a border looks into two. */
  private along(v: number): number {
    return Math.floor(v / (16 * this.reach));
  }
  /** Different cells may share a number; distances are asked all the same. */
  private hash(x: number, y: number, z: number): number {
    return (Math.imul(x, 73_856_093) ^ Math.imul(y, 19_349_663) ^ Math.imul(z, 83_492_791)) | 0;
  }

  /** The first point near a place that suits. @returns its index, -1 where there is none */
  find(at: Vec3, suits: (i: number) => boolean): number {
    const span = (v: number) => {
      const [low, high] = [this.along(v - this.reach), this.along(v + this.reach)];
      return low === high ? [low] : [low, high];
    };
    for (const x of span(at[0]))
      for (const y of span(at[1]))
        for (const z of span(at[2]))
          for (const i of this.cells.get(this.hash(x, y, z)) ?? [])
            if (distance3(this.points[i]!, at) <= this.reach && suits(i)) return i;
    return -1;
  }
}
