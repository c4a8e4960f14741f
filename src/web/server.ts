// The web process: pages by the framework, and in front of it what comes by the hundred a second.
import { createServer } from "node:http";
import next from "next";
import { environment } from "@/server/environment";
import { sendLetters } from "@/server/outbox";
import { quick } from "./quick";
import { warmUp } from "./warm";

const { PORT: port = 3000, HOST: hostname = "127.0.0.1" } = environment();
const app = next({ dev: false, hostname, port });
await app.prepare();
const pages = app.getRequestHandler();

const server = createServer((request, response) => {
  if (!quick(request, response)) void pages(request, response);
});
/** Longer than any proxy in front keeps an idle connection, so that none is closed while a request is on its way. */
server.keepAliveTimeout = 75_000;
const address = `http://${hostname}:${port}`;
server.listen(port, hostname, async () => {
  // a database that is not there yet is told on the pages
  await warmUp(address).catch(() => {});
  console.error(`web server ready at ${address}`);
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
