import type { Vec2 } from "@/core/geometry/vector";

/** The lines of an ASCII DXF file as they are written: group codes, and what stands under them. */
export class DxfLines {
  private readonly out: string[] = [];

  /** @param figure how a number is written @param placed where a place of ours lies in the file */
  constructor(
    private readonly figure: (n: number) => string,
    private readonly placed: (p: Vec2) => Vec2 = (p) => p,
  ) {}

  put(code: number, value: string | number): void {
    this.out.push(String(code), typeof value === "number" ? this.figure(value) : value);
  }

  /** A place, in the plane. */
  place(code: number, at: Vec2): void {
    const [x, y] = this.placed(at);
    this.put(code, x);
    this.put(code + 10, y);
    this.put(code + 20, 0);
  }

  section(name: string, content: () => void): void {
    this.put(0, "SECTION");
    this.put(2, name);
    content();
    this.put(0, "ENDSEC");
  }

  table<T>(name: string, rows: readonly T[], row: (of: T) => void): void {
    this.put(0, "TABLE");
    this.put(2, name);
    this.put(70, rows.length);
    rows.forEach(row);
    this.put(0, "ENDTAB");
  }

  /** The whole file. */
  text(end: string): string {
    this.put(0, "EOF");
    return this.out.map((l) => l + end).join("");
  }
}
