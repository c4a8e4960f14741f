import { isWhole, sampled, segmentEnd, type Segment } from "@/core/geometry/segment";
import { splinePoles } from "@/core/geometry/spline";
import type { Vec2 } from "@/core/geometry/vector";
import { DXF_LAYERS } from "./dxf-layers";
import { DxfLines } from "./dxf-lines";
import { segmentOf } from "@/core/sketch/curves/registry";
import type { Sketch } from "@/core/sketch/sketch";

type DxfVersion = "R12" | "2000";

/** Every digit of a number, and none more. */
const figure = (n: number): string => (Number.isInteger(n) ? String(n) : String(Number(n.toPrecision(17))));

/**
 * A sketch as an ASCII DXF file in mm. R12 knows no ellipses and splines: they become fine polylines there.
 * Construction curves and centre lines go on layers of their own, by which they are known again.
 */
export function writeDxf(sketch: Pick<Sketch, "curves">, version: DxfVersion): string {
  const file = new SketchFile(version);
  file.section("HEADER", () => {
    file.put(9, "$ACADVER");
    file.put(1, version === "R12" ? "AC1009" : "AC1015");
    if (version === "R12") return;
    file.put(9, "$INSUNITS");
    file.put(70, 4);
  });
  file.section("ENTITIES", () => {
    for (const curve of sketch.curves) {
      const drawn = curve.construction ? DXF_LAYERS.construction : DXF_LAYERS.sketch;
      const layer = curve.construction === "centre-line" ? DXF_LAYERS.centre : drawn;
      const s = segmentOf(curve);
      if (s) file.segment(s, layer);
      else if (curve.kind === "point") file.point(curve.at, layer);
    }
  });
  return file.text("\r\n");
}

class SketchFile extends DxfLines {
  private handle = 0x100;

  constructor(private readonly version: DxfVersion) {
    super(figure);
  }

  private entity(kind: string, marker: string, layer: string): void {
    this.put(0, kind);
    if (this.version === "2000") {
      this.put(5, (this.handle++).toString(16).toUpperCase());
      this.put(100, "AcDbEntity");
    }
    this.put(8, layer);
    if (this.version === "2000") this.put(100, marker);
  }

  point(at: Vec2, layer: string): void {
    this.entity("POINT", "AcDbPoint", layer);
    this.place(10, at);
  }

  segment(s: Segment, layer: string): void {
    if (s.kind === "line") {
      this.entity("LINE", "AcDbLine", layer);
      this.place(10, s.a);
      this.place(11, s.b);
    } else if (s.kind === "arc") this.arc(s, layer);
    else if (this.version === "R12") this.polyline(s, layer);
    else if (s.kind === "ellipse") this.ellipse(s, layer);
    else this.spline(s, layer);
  }

  private arc(s: Extract<Segment, { kind: "arc" }>, layer: string): void {
    const whole = isWhole(s);
    this.entity(whole ? "CIRCLE" : "ARC", "AcDbCircle", layer);
    this.place(10, s.centre);
    this.put(40, s.radius);
    if (whole) return;
    if (this.version === "2000") this.put(100, "AcDbArc");
    const degrees = (t: number) => ((((t * 180) / Math.PI) % 360) + 360) % 360;
    this.put(50, degrees(s.from));
    this.put(51, degrees(s.from + s.sweep));
  }

  private polyline(s: Segment, layer: string): void {
    const whole = isWhole(s);
    this.entity("POLYLINE", "", layer);
    this.put(66, 1);
    this.place(10, [0, 0]);
    this.put(70, whole ? 1 : 0);
    for (const p of whole ? sampled(s, 0.02) : [...sampled(s, 0.02), segmentEnd(s)]) {
      this.put(0, "VERTEX");
      this.put(8, layer);
      this.place(10, p);
    }
    this.put(0, "SEQEND");
    this.put(8, layer);
  }

  private ellipse(s: Extract<Segment, { kind: "ellipse" }>, layer: string): void {
    this.entity("ELLIPSE", "AcDbEllipse", layer);
    this.place(10, s.centre);
    // the long half axis first; angles count from it, the short way to the other
    const a = Math.hypot(...s.major),
      b = Math.hypot(...s.minor),
      swap = b > a;
    const long = swap ? s.minor : s.major,
      handed = s.major[0] * s.minor[1] - s.major[1] * s.minor[0] > 0 ? 1 : -1;
    let [from, to] = swap ? [s.from - Math.PI / 2, s.from + s.sweep - Math.PI / 2] : [s.from, s.from + s.sweep];
    if (handed < 0) [from, to] = [-to, -from];
    this.place(11, long);
    this.put(210, 0);
    this.put(220, 0);
    this.put(230, 1);
    this.put(40, swap ? a / b : b / a);
    this.put(41, isWhole(s) ? 0 : from);
    this.put(42, isWhole(s) ? 2 * Math.PI : to);
  }

  private spline(s: Extract<Segment, { kind: "spline" }>, layer: string): void {
    const { poles, knots } = splinePoles(s.beziers),
      last = knots[knots.length - 1]!;
    const all = [0, 0, 0, ...knots, last, last, last];
    this.entity("SPLINE", "AcDbSpline", layer);
    this.put(70, 8);
    this.put(71, 3);
    this.put(72, all.length);
    this.put(73, poles.length);
    this.put(74, 0);
    for (const k of all) this.put(40, k);
    for (const p of poles) this.place(10, p);
  }
}
