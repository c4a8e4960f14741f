import { isWhole, sampled, segmentEnd, type Segment } from "@/core/geometry/segment";
import { splinePoles } from "@/core/geometry/spline";
import type { Vec2 } from "@/core/geometry/vector";
import { DXF_LAYERS } from "./dxf-layers";
import { segmentOf } from "@/core/sketch/curves/registry";
import type { Sketch } from "@/core/sketch/sketch";

type DxfVersion = "R12" | "2000";

/**
 * A sketch as an ASCII DXF file in mm. R12 knows no ellipses and splines: they become fine polylines there.
 * Construction curves and centre lines go on layers of their own, by which they are known again.
 */
export function writeDxf(sketch: Pick<Sketch, "curves">, version: DxfVersion): string {
  const out: string[] = [];
  let handle = 0x100;
  const put = (code: number, value: string | number) =>
    out.push(
      String(code),
      typeof value === "number"
        ? Number.isInteger(value)
          ? String(value)
          : String(Number(value.toPrecision(17)))
        : value,
    );
  const place = (code: number, [x, y]: Vec2) => {
    put(code, x);
    put(code + 10, y);
    put(code + 20, 0);
  };
  const entity = (kind: string, marker: string, layer: string) => {
    put(0, kind);
    if (version === "2000") {
      put(5, (handle++).toString(16).toUpperCase());
      put(100, "AcDbEntity");
    }
    put(8, layer);
    if (version === "2000") put(100, marker);
  };
  put(0, "SECTION");
  put(2, "HEADER");
  put(9, "$ACADVER");
  put(1, version === "R12" ? "AC1009" : "AC1015");
  if (version === "2000") {
    put(9, "$INSUNITS");
    put(70, 4);
  }
  put(0, "ENDSEC");
  put(0, "SECTION");
  put(2, "ENTITIES");
  for (const curve of sketch.curves) {
    const drawn = curve.construction ? DXF_LAYERS.construction : DXF_LAYERS.sketch;
    const layer = curve.construction === "centre-line" ? DXF_LAYERS.centre : drawn;
    const s = segmentOf(curve);
    if (!s) {
      if (curve.kind !== "point") continue;
      entity("POINT", "AcDbPoint", layer);
      place(10, curve.at);
    } else segment(s, layer);
  }
  put(0, "ENDSEC");
  put(0, "EOF");
  return `${out.join("\r\n")}\r\n`;

  function segment(s: Segment, layer: string): void {
    if (s.kind === "line") {
      entity("LINE", "AcDbLine", layer);
      place(10, s.a);
      place(11, s.b);
    } else if (s.kind === "arc") {
      const whole = isWhole(s);
      entity(whole ? "CIRCLE" : "ARC", "AcDbCircle", layer);
      place(10, s.centre);
      put(40, s.radius);
      if (whole) return;
      if (version === "2000") put(100, "AcDbArc");
      const degrees = (t: number) => ((((t * 180) / Math.PI) % 360) + 360) % 360;
      put(50, degrees(s.from));
      put(51, degrees(s.from + s.sweep));
    } else if (version === "R12") polyline(s, layer);
    else if (s.kind === "ellipse") ellipse(s, layer);
    else spline(s, layer);
  }

  function polyline(s: Segment, layer: string): void {
    const whole = isWhole(s);
    entity("POLYLINE", "", layer);
    put(66, 1);
    place(10, [0, 0]);
    put(70, whole ? 1 : 0);
    for (const p of whole ? sampled(s, 0.02) : [...sampled(s, 0.02), segmentEnd(s)]) {
      put(0, "VERTEX");
      put(8, layer);
      place(10, p);
    }
    put(0, "SEQEND");
    put(8, layer);
  }

  function ellipse(s: Extract<Segment, { kind: "ellipse" }>, layer: string): void {
    entity("ELLIPSE", "AcDbEllipse", layer);
    place(10, s.centre);
    // the long half axis first; angles count from it, the short way to the other
    const a = Math.hypot(...s.major),
      b = Math.hypot(...s.minor),
      swap = b > a;
    const long = swap ? s.minor : s.major,
      handed = s.major[0] * s.minor[1] - s.major[1] * s.minor[0] > 0 ? 1 : -1;
    let [from, to] = swap ? [s.from - Math.PI / 2, s.from + s.sweep - Math.PI / 2] : [s.from, s.from + s.sweep];
    if (handed < 0) [from, to] = [-to, -from];
    place(11, long);
    put(210, 0);
    put(220, 0);
    put(230, 1);
    put(40, swap ? a / b : b / a);
    put(41, isWhole(s) ? 0 : from);
    put(42, isWhole(s) ? 2 * Math.PI : to);
  }

  function spline(s: Extract<Segment, { kind: "spline" }>, layer: string): void {
    const { poles, knots } = splinePoles(s.beziers),
      last = knots[knots.length - 1]!;
    const all = [0, 0, 0, ...knots, last, last, last];
    entity("SPLINE", "AcDbSpline", layer);
    put(70, 8);
    put(71, 3);
    put(72, all.length);
    put(73, poles.length);
    put(74, 0);
    for (const k of all) put(40, k);
    for (const p of poles) place(10, p);
  }
}
