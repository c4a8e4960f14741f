import type { IncomingMessage, ServerResponse } from "node:http";
import * as handIn from "@/app/api/handouts/[id]/hand-in/route";
import * as works from "@/app/api/works/[handout]/route";
import { MOST_BYTES, MOST_HAND_IN } from "@/app/api/endpoint";
import { NO_PAGE } from "./policy";

type Handler = (request: Request, context: { params: Promise<never> }) => Promise<Response>;

interface Route {
  readonly path: RegExp;
  readonly thing: string;
  /** Bytes of a body at most. */
  readonly most: number;
  readonly handlers: Record<string, Handler>;
}
/**
 * What comes by the hundred a second: saves, and a whole class handing in. The same handlers as the framework's,
 * without its way there, which costs as much as all the rest of a save.
 */
const ROUTES: readonly Route[] = [
  {
    path: /^\/api\/works\/([^/?]+)$/,
    thing: "handout",
    most: MOST_BYTES,
    handlers: { GET: works.GET, PUT: works.PUT, POST: works.POST },
  },
  {
    path: /^\/api\/handouts\/([^/?]+)\/hand-in$/,
    thing: "id",
    most: MOST_HAND_IN,
    handlers: { POST: handIn.POST },
  },
];

/** Reads a body to its end. What is longer than told, or than may be, is left to the handler to refuse. */
async function bodyOf(request: IncomingMessage, most: number): Promise<Buffer<ArrayBuffer> | undefined> {
  const told = Number(request.headers["content-length"] ?? Number.NaN);
  if (!(told >= 0 && told <= most)) return undefined;
  const pieces: Buffer[] = [];
  for await (const piece of request) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
}

/** Answers a request of these kinds. @returns false where it is another's */
export function quick(request: IncomingMessage, response: ServerResponse): boolean {
  const { method = "GET", url = "" } = request;
  for (const { path, thing, most, handlers } of ROUTES) {
    const id = path.exec(url)?.[1];
    const handler = handlers[method];
    // what tells no length is streamed and counted the framework's way
    const isTold = method === "GET" || "content-length" in request.headers;
    if (id === undefined || !handler || !isTold) continue;
    void answer(request, response, handler, most, { [thing]: decoded(id) });
    return true;
  }
  return false;
}

/** What cannot be decoded names nothing there is. */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return "";
  }
}

async function answer(
  request: IncomingMessage,
  response: ServerResponse,
  handler: Handler,
  most: number,
  params: Record<string, string>,
): Promise<void> {
  try {
    const isRead = request.method === "GET";
    const body = isRead ? undefined : await bodyOf(request, most);
    const made = new Request(`http://${request.headers.host ?? "localhost"}${request.url}`, {
      method: request.method!,
      headers: request.headers as Record<string, string>,
      ...(body && { body }),
    });
    const result = await handler(made, { params: Promise.resolve(params as never) });
    const text = await result.text();
    // a body that was refused unread: the way is closed behind the answer
    if (!isRead && !body) response.setHeader("connection", "close");
    response.writeHead(result.status, {
      ...Object.fromEntries(result.headers),
      ...NO_PAGE,
      "content-length": Buffer.byteLength(text),
    });
    response.end(text);
  } catch {
    // who sent it has gone before the end
    response.destroy();
  }
}
