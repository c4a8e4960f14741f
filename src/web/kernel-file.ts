import { createReadStream } from "node:fs";
import { stat } from "node:fs/promises";
import type { IncomingMessage, ServerResponse } from "node:http";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import { EVERYWHERE } from "./policy";

const KERNEL = /^\/kernel\/(kernel-[\d.]+\.wasm)$/;

/** How the file lies there packed (scripts/kernel-files.mjs), the smallest first. */
const PACKED = [
  { encoding: "br", end: ".br" },
  { encoding: "gzip", end: ".gz" },
] as const;

/** Sends the kernel as it lies there packed. @returns false where it is another's to answer */
export function sendKernel(request: IncomingMessage, response: ServerResponse): boolean {
  const name = KERNEL.exec(request.url ?? "")?.[1];
  if (name === undefined || (request.method !== "GET" && request.method !== "HEAD")) return false;
  void send(request, response, name).catch(() => response.destroy());
  return true;
}

async function send(request: IncomingMessage, response: ServerResponse, name: string): Promise<void> {
  const file = join(process.cwd(), "public", "kernel", name),
    taken = acceptedBy(String(request.headers["accept-encoding"] ?? ""));
  for (const { encoding, end } of [...taken, { encoding: undefined, end: "" }]) {
    const found = await stat(file + end).catch(() => undefined);
    if (!found) continue;
    response.writeHead(200, {
      ...EVERYWHERE,
      "content-type": "application/wasm",
      "content-length": found.size,
      "cache-control": "public, max-age=31536000, immutable",
      vary: "accept-encoding",
      ...(encoding && { "content-encoding": encoding }),
    });
    if (request.method === "HEAD") return void response.end();
    return pipeline(createReadStream(file + end), response);
  }
  response.writeHead(404, EVERYWHERE).end();
}

/** Which of the packed files a browser takes: those it names, unless with a weight of nothing. */
function acceptedBy(header: string) {
  const named = header
    .split(",")
    .map((part) => part.trim().split(/\s*;\s*/))
    .filter(([, weight = "q=1"]) => Number(weight.slice(2)) > 0)
    .map(([coding]) => coding);
  return PACKED.filter((p) => named.includes(p.encoding));
}
