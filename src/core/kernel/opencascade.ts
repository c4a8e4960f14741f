import initialise, { type OpenCascadeInstance } from "replicad-opencascadejs";

/** The raw library. Only this room may touch it. */
export type Library = OpenCascadeInstance;

/** Which build of the kernel measures: frozen into every report. */
export const KERNEL_VERSION = "open-cascade-wasm 1.1.0";

interface KernelSource {
  /** The bytes of the .wasm file (Node), … */
  readonly wasmBinary?: Uint8Array;
  /** … or where it is served (browser), … */
  readonly locateFile?: (name: string) => string;
  /** … or what makes an instance of a module that is compiled already. */
  readonly instantiateWasm?: unknown;
}

interface Releasable {
  delete(): void;
  Clear?: (release?: boolean) => void;
  Nullify?: () => void;
}

/** Core knows no clock of its own; where there is one, the bench's figures come from it. */
const now = (): number => (globalThis as { performance?: { now(): number } }).performance?.now() ?? 0;

/** One instance of the library and the only way to give its memory back. */
export class Kernel {
  private constructor(readonly library: Library) {}

  static async open(source: KernelSource): Promise<Kernel> {
    // the library prints on standard output; results of ours stand there
    const options = { ...source, print: () => {}, printErr: () => {} };
    return new Kernel(await (initialise as unknown as (o: object) => Promise<Library>)(options));
  }

  /** Bytes of the library's heap; it never shrinks, so a grown instance has to be replaced whole. */
  get heapBytes(): number {
    return (this.library as unknown as { wasmMemory: { buffer: { byteLength: number } } }).wasmMemory.buffer.byteLength;
  }

  private readonly attached = new Map<object, Releasable[]>();
  /** Handles that live as long as an object does and are released with it. */
  attach(to: object, handles: Releasable[]): void {
    this.attached.set(to, [...(this.attached.get(to) ?? []), ...handles]);
  }

  /**
   * Frees what the library holds for these objects. `delete` alone frees next to nothing: contents must be dropped
   * first.
   */
  release(...objects: (Releasable | undefined | null)[]): void {
    for (const releasable of objects) {
      if (!releasable) continue;
      const own = this.attached.get(releasable);
      if (own) {
        this.attached.delete(releasable);
        this.release(...own);
      }
      try {
        // collections and algorithms keep their contents alive until cleared
        if (typeof releasable.Clear === "function")
          releasable.Clear.length ? releasable.Clear(true) : releasable.Clear();
        if (typeof releasable.Nullify === "function") releasable.Nullify();
      } catch {
        // an object that was never filled refuses to be cleared; deleting it is enough
      }
      releasable.delete();
    }
  }

  /** Milliseconds spent in the library's own modelling calls, for the bench that compares ours with theirs. */
  libraryMs = 0;
  /** A modelling call of the library, its time counted. */
  run<T>(call: () => T): T {
    const start = now();
    try {
      return call();
    } finally {
      this.libraryMs += now() - start;
    }
  }

  /** Runs `work`, turning an exception of the library into an Error with its text. */
  guard<T>(what: string, work: () => T): T {
    try {
      return work();
    } catch (e) {
      if (e instanceof Error && e.name !== "Exception" && !("excPtr" in e)) throw e;
      const message = (
        this.library as unknown as { getExceptionMessage?: (e: unknown) => unknown }
      ).getExceptionMessage?.(e);
      throw new KernelFault(`${what}: ${Array.isArray(message) ? message.join(" ") : String(message ?? e)}`);
    }
  }
}

/** The library gave up; the message is its own. */
export class KernelFault extends Error {}
