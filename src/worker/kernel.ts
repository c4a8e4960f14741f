import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { Kernel } from "@/core/kernel/opencascade";

/** Opens the kernel in Node. */
export async function openNodeKernel(): Promise<Kernel> {
  const file = createRequire(import.meta.url).resolve("replicad-opencascadejs/wasm");
  return Kernel.open({ wasmBinary: await readFile(file) });
}
