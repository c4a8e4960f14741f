// The web process: pages by the framework, and in front of it what comes by the hundred a second.
import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import next from "next";
import { environment } from "@/server/environment";
import { log, pathOf, ready } from "@/server/log";
import { sendLetters } from "@/server/people/outbox";
import { inSentences, isApi, turnAway } from "./door";
import { sendKernel } from "./kernel-file";
import { quick } from "./quick";
import { warmUp } from "./warm";

const { PORT: port = 3000, HOST: hostname = "127.0.0.1" } = environment();
const app = next({ dev: false, hostname, port });
await app.prepare();
const pages = app.getRequestHandler();

/** An answer that took longer is written down whatever the level. */
const SLOW_MS = 1_000;
/** Streams of news last as long as their page. */
const isToLog = (url: string) => !/^\/(_next|kernel|api\/news|icon)/.test(url);

const server = createServer((request, response) => {
  const began = performance.now();
  const { method = "GET", url = "" } = request;
  if (isToLog(url))
    response.once("close", () => {
      const ms = Math.round(performance.now() - began);
      const line = { method, path: pathOf(url), status: response.statusCode, ms };
      if (ms >= SLOW_MS) log.warn(line, "slow answer");
      else log.info(line, "answer");
    });
  void answer(request, response);
});
async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  if (await turnAway(request, response)) return;
  if (sendKernel(request, response)) return;
  if (quick(request, response)) return;
  if (isApi(request.url ?? "")) inSentences(request, response);
  await pages(request, response);
}
/** Longer than any proxy in front keeps an idle connection, so that none is closed while a request is on its way. */
server.keepAliveTimeout = 75_000;
const address = `http://${hostname}:${port}`;
server.listen(port, hostname, async () => {
  // a database that is not there yet is told on the pages
  await warmUp(address).catch(() => {});
  ready("web server");
});

const POST_MS = 5_000;
setInterval(() => void sendLetters().catch(() => {}), POST_MS).unref();

const LAST_WAIT_MS = 5_000;
for (const signal of ["SIGTERM", "SIGINT"] as const)
  process.on(signal, () => {
    // what is under way is answered; streams of news never end by themselves
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), LAST_WAIT_MS).unref();
  });
