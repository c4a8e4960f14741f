// Puts the kernel's WebAssembly where the browser can fetch it, packed once: 22 MB packed anew for each who comes would
// take the server more than a second of each.
import { copyFileSync, existsSync, mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

const from = createRequire(import.meta.url).resolve("replicad-opencascadejs/wasm");
const folder = fileURLToPath(new URL("../public/kernel/", import.meta.url));
const to = join(folder, "kernel-1.1.0.wasm");
mkdirSync(folder, { recursive: true });
const isThere = existsSync(to) && statSync(to).size === statSync(from).size;
if (!isThere) copyFileSync(from, to);

// the finest takes a minute and saves a tenth
const QUALITY = 7;
const PACKED = {
  br: (bytes) => brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY } }),
  gz: (bytes) => gzipSync(bytes, { level: 9 }),
};
for (const [end, pack] of Object.entries(PACKED)) {
  const file = `${to}.${end}`;
  if (isThere && existsSync(file)) continue;
  // whole or not at all, however this ends
  writeFileSync(`${file}.part`, pack(readFileSync(to)));
  renameSync(`${file}.part`, file);
}
