// Puts the kernel's WebAssembly where the browser can fetch it.
import { copyFileSync, mkdirSync } from "node:fs";
import { createRequire } from "node:module";
import { fileURLToPath } from "node:url";

const from = createRequire(import.meta.url).resolve("replicad-opencascadejs/wasm");
const to = new URL("../public/kernel/", import.meta.url);
mkdirSync(to, { recursive: true });
copyFileSync(from, fileURLToPath(new URL("kernel-1.1.0.wasm", to)));
