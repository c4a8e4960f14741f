import { z } from "zod";
import { MAX_MESH } from "@/core/check/given/part-file";
import { MAX_DOCUMENT } from "@/core/part/document";
import type { Refusal } from "@/core/units/refusal";
import { admit, Denied, type Action } from "@/server/permissions";
import { personOfSession, type Person } from "@/server/people/people";
import { isAway, isTaken } from "@/server/database";
import { logged } from "@/server/log";
import { tokenIn } from "../cookie";

/** Ends a request with a plain sentence and a status. */
export class Refused extends Error {
  /** @param data what the program behind the page needs beside the sentence */
  constructor(
    readonly status: number,
    sentence: string,
    readonly data: object = {},
  ) {
    super(sentence);
  }
}

export const must = <T>(r: { ok: true; value: T } | { ok: false; refusal: Refusal }): T => {
  if (!r.ok) throw new Refused(422, r.refusal.sentence);
  return r.value;
};

/** A document, and what goes with it: a small picture. */
export const MOST_BYTES = MAX_DOCUMENT + 200_000;
/** What is handed in: a mesh file as base64 is larger. */
export const MOST_HAND_IN = Math.ceil(MAX_MESH / 3) * 4 + 200_000;

/** The text of a request, cut off while it streams in. */
async function boundedText(request: Request, most: number): Promise<string> {
  try {
    return await streamed(request, most);
  } catch (e) {
    if (e instanceof TypeError) throw new Refused(400, "The request is not UTF-8, or broke off.");
    throw e;
  }
}

async function streamed(request: Request, most: number): Promise<string> {
  const large = () =>
    new Refused(
      413,
      `This is larger than ${Math.floor(most / 1_000_000)} MB and cannot be kept on the server. Make the part lighter.`,
    );
  const told = Number(request.headers.get("content-length") ?? Number.NaN);
  if (told > most) throw large();
  // the server takes no more than was told; only what tells nothing is counted
  if (told >= 0) return new TextDecoder("utf-8", { fatal: true }).decode(await request.arrayBuffer());
  const reader = request.body?.getReader();
  if (!reader) return "";
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let text = "",
    bytes = 0;
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return text + decoder.decode();
      bytes += value.byteLength;
      if (bytes > most) throw large();
      text += decoder.decode(value, { stream: true });
    }
  } catch (e) {
    await reader.cancel().catch(() => {});
    throw e;
  }
}

/** A NUL or half a surrogate pair in some text: the database keeps neither. */
const UNKEEPABLE = /(?:^|[^\\])(?:\\\\)*\\u(?:0000|d[89a-f])/;

/** The body of a request, bounded and parsed. */
export async function body<T>(request: Request, schema: z.ZodType<T>, most = MOST_BYTES): Promise<T> {
  const text = await boundedText(request, most);
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new Refused(400, "The request is not JSON.");
  }
  // written again, whatever is no whole character stands escaped; it came escaped, since the rest is UTF-8
  if (text.includes("\\u") && UNKEEPABLE.test(JSON.stringify(data)))
    throw new Refused(422, "A text in it holds a character that cannot be kept. Type that name or note anew.");
  const r = schema.safeParse(data);
  if (!r.success)
    throw new Refused(
      422,
      `The request cannot be read: ${r.error.issues[0]?.path.join(".")} ${r.error.issues[0]?.message}.`,
    );
  return r.data;
}

/** A page left open while somebody else signed in must not write into their work. */
export function mustBe(person: Person, owner: string): void {
  if (person.id !== owner)
    throw new Refused(
      401,
      `${person.name} is signed in in this browser now. Sign in as yourself; nothing here is lost.`,
    );
}

/** Versions as the database counts them. */
export const VERSION = z.number().int().min(0).max(2_147_483_647);

/** As what kind of file something is asked for; the first where nothing is said. */
export function fileOf<K extends string>(request: Request, kinds: readonly [K, ...K[]]): K {
  const asked = new URL(request.url).searchParams.get("as");
  const kind = asked === null ? kinds[0] : kinds.find((k) => k === asked);
  if (!kind) throw new Refused(422, `Ask for it as ${kinds.join(", ")}.`);
  return kind;
}

/** Whether it is to be opened in the browser, to be printed, rather than kept as a file. */
export const isToShow = (request: Request): boolean => new URL(request.url).searchParams.has("show");

/** What a person is told is nobody else's to keep. */
const PRIVATE = { "cache-control": "no-store" };

/** "null" and what is no address have no host. */
const hostOf = (origin: string): string | undefined => (URL.canParse(origin) ? new URL(origin).host : undefined);

export const SIGNED_OUT = "You are signed out. Sign in again in another window; nothing here is lost.";

const TAKEN = "This was sent under an id that something else has. Load the page again and do it once more.";
const AWAY = "The database does not answer for the moment and is being started again. Nothing already saved is lost.";

const say = (status: number, sentence: string, data: object = {}) =>
  Response.json({ ...data, sentence }, { status, headers: PRIVATE });

/** The answer to a request; every failure ends in a sentence. */
export async function answered(work: () => Promise<unknown>): Promise<Response> {
  try {
    const result = (await work()) ?? {};
    return result instanceof Response ? result : Response.json(result, { headers: PRIVATE });
  } catch (e) {
    if (e instanceof Denied) return say(404, e.message);
    if (e instanceof Refused) return say(e.status, e.message, e.data);
    if (isTaken(e)) return say(409, TAKEN);
    if (isAway(e)) return say(503, `${AWAY} (${logged(e)})`);
    return say(500, `Something went wrong on the server. Nothing already saved is lost; try again. (${logged(e)})`);
  }
}

/** Pieces as they are asked for; what made them ends when nobody listens any more. */
function streamOf(pieces: AsyncIterable<Uint8Array<ArrayBuffer>>): ReadableStream<Uint8Array<ArrayBuffer>> {
  const from = pieces[Symbol.asyncIterator]();
  return new ReadableStream({
    async pull(to) {
      const next = await from.next();
      if (next.done) to.close();
      else to.enqueue(next.value);
    },
    async cancel() {
      await from.return?.();
    },
  });
}

/** A zip to be kept as a file, whole or as it comes. */
export const zipFile = (bytes: Uint8Array<ArrayBuffer> | AsyncIterable<Uint8Array<ArrayBuffer>>, name: string) =>
  new Response(bytes instanceof Uint8Array ? bytes : streamOf(bytes), {
    headers: {
      ...PRIVATE,
      "content-type": "application/zip",
      "content-disposition": `attachment; filename="${name}"`,
    },
  });

/**
 * A route handler for signed-in people who may do this. @param thing which part of the address names what it is done to
 */
export function endpoint<P extends Record<string, string>>(
  action: Action,
  thing: keyof P,
  work: (person: Person, params: P, request: Request) => Promise<unknown>,
) {
  return (request: Request, { params }: { params: Promise<P> }) =>
    answered(async () => {
      // changes are only taken from our own pages
      const origin = request.headers.get("origin");
      if (request.method !== "GET" && origin && hostOf(origin) !== request.headers.get("host"))
        throw new Refused(403, "This request comes from another site.");
      const named = await params;
      const person = await admit(tokenIn(request.headers.get("cookie")), action, named[thing]!);
      if (!person) throw new Refused(401, SIGNED_OUT);
      return work(person, named, request);
    });
}

/** The same for whatever everybody who is signed in may ask for. */
export function memberEndpoint<P extends Record<string, string>>(
  work: (person: Person, params: P, request: Request) => Promise<unknown>,
) {
  return (request: Request, { params }: { params: Promise<P> }) =>
    answered(async () => {
      const token = tokenIn(request.headers.get("cookie"));
      const person = token ? await personOfSession(token) : undefined;
      if (!person) throw new Refused(401, SIGNED_OUT);
      return work(person, await params, request);
    });
}
