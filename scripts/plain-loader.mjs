// Reads TypeScript for the benches as it runs in production: no helper in every function, as tsx puts there.
import { readFile } from "node:fs/promises";
import { existsSync } from "node:fs";
import { fileURLToPath, pathToFileURL } from "node:url";
import { transform } from "esbuild";

const SRC = new URL("../src/", import.meta.url);
const candidates = (url) => [url, `${url}.ts`, `${url}.tsx`, `${url}/index.ts`];
const found = (url) => candidates(url).find((c) => /\.[a-z]+$/.test(c) && existsSync(fileURLToPath(c)));

export async function resolve(specifier, context, next) {
  const inSource = specifier.startsWith("@/")
    ? new URL(specifier.slice(2), SRC).href
    : specifier.startsWith(".") &&
      context.parentURL?.startsWith(SRC.href) &&
      new URL(specifier, context.parentURL).href;
  const url = inSource && found(inSource);
  return url
    ? { url, format: url.endsWith(".mjs") ? "module" : undefined, shortCircuit: true }
    : next(specifier, context);
}

export async function load(url, context, next) {
  if (!/\.tsx?$/.test(url)) return next(url, context);
  const path = fileURLToPath(url);
  const { code } = await transform(await readFile(path, "utf8"), {
    loader: path.endsWith("x") ? "tsx" : "ts",
    format: "esm",
    sourcefile: pathToFileURL(path).href,
    sourcemap: "inline",
  });
  return { format: "module", source: code, shortCircuit: true };
}
