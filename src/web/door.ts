import type { IncomingMessage, ServerResponse } from "node:http";
import { SIGNED_OUT } from "@/app/api/endpoint";
import { tokenIn } from "@/app/cookie";
import { personOfSession } from "@/server/people/people";
import { Denied } from "@/server/permissions";
import { NO_PAGE } from "./policy";

/** What is larger is read only from who is signed in, bytes: strangers do not fill the memory. */
const SMALL = 64_000;
/** An address that no page has. */
const NOWHERE = "/nothing-is-here";

export const isApi = (url: string): boolean => /^\/api(\/|\?|$)/.test(url);

/** So long somebody may go on sending what nobody reads: cut off at once, they would not see the answer. */
const DRAINS_MS = 3_000;

/** Answers with a sentence, and nothing else. What goes on being sent is thrown away, and cut off after a while. */
export function refuse(request: IncomingMessage, response: ServerResponse, status: number, sentence: string): void {
  if (!request.complete) {
    request.resume();
    const late = setTimeout(() => request.destroy(), DRAINS_MS).unref();
    request.once("close", () => clearTimeout(late));
  }
  const text = JSON.stringify({ sentence });
  response.writeHead(status, {
    ...NO_PAGE,
    "cache-control": "no-store",
    "content-type": "application/json",
    "content-length": Buffer.byteLength(text),
  });
  response.end(text);
}

function isDecodable(url: string): boolean {
  try {
    decodeURI(url.split("?")[0]!);
    return true;
  } catch {
    return false;
  }
}

/**
 * What the framework would answer without a word: an address that cannot be decoded, large bodies of strangers.
 * @returns whether it is answered
 */
export async function turnAway(request: IncomingMessage, response: ServerResponse): Promise<boolean> {
  const { method = "GET", url = "/" } = request;
  if (!isDecodable(url)) {
    if (isApi(url)) {
      refuse(request, response, 400, "This address cannot be read.");
      return true;
    }
    request.url = NOWHERE;
  }
  if (method === "GET" || method === "HEAD") return false;
  const told = request.headers["content-length"];
  // what tells no length may be of any
  const isSmall = told === undefined ? !("transfer-encoding" in request.headers) : Number(told) <= SMALL;
  if (isSmall) return false;
  const token = tokenIn(request.headers.cookie ?? null);
  // a database that is away is told by whoever answers
  const isKnown = token ? await personOfSession(token).then(Boolean, () => true) : false;
  if (isKnown) return false;
  refuse(request, response, 401, SIGNED_OUT);
  return true;
}

const SENTENCES: Readonly<Record<number, string>> = {
  404: new Denied().message,
  405: "This cannot be done here.",
  413: "This is too large to be taken.",
};
const WRONG = "Something went wrong on the server. Nothing already saved is lost; try again.";

/**
 * The framework's own faults, which are pages or nothing, become what a program can read: its head is held back, its
 * body dropped, and at its end ours is given.
 */
export function inSentences(request: IncomingMessage, response: ServerResponse): void {
  const { writeHead, flushHeaders, write, end } = response;
  const isMute = () =>
    !response.headersSent &&
    response.statusCode >= 400 &&
    !String(response.getHeader("content-type") ?? "").includes("json");
  const unless = <F extends (...all: never[]) => unknown>(own: F, otherwise: () => unknown) =>
    ((...all: Parameters<F>) => (isMute() ? otherwise() : own.apply(response, all))) as F;
  response.writeHead = unless(writeHead, () => response);
  response.flushHeaders = unless(flushHeaders, () => {});
  response.write = unless(write, () => true);
  response.end = unless(end, () => {
    Object.assign(response, { writeHead, flushHeaders, write, end });
    for (const name of response.getHeaderNames()) if (name !== "allow") response.removeHeader(name);
    refuse(request, response, response.statusCode, SENTENCES[response.statusCode] ?? WRONG);
    return response;
  });
}
