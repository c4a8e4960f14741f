import { distance3, type Vec3 } from "./vector";

/** Points filed by the cell they lie in, so that what is near a place is found without asking all. */
export class Nearby {
  readonly points: Vec3[] = [];
  private readonly cells = new Map<number, number[]>();

  /** @param reach how far apart two points may be to be called near, mm */
  constructor(
    points: readonly Vec3[],
    private readonly reach: number,
  ) {
    points.forEach((p) => this.add(p));
  }

  /** Files another point. @returns its index */
  add(point: Vec3): number {
    const index = this.points.push(point) - 1,
      cell = this.hash(this.along(point[0]), this.along(point[1]), this.along(point[2])),
      there = this.cells.get(cell);
    if (there) there.push(index);
    else this.cells.set(cell, [index]);
    return index;
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
