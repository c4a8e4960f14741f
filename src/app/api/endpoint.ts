import { NextResponse, type NextRequest } from "next/server";
import { z } from "zod";
import { MAX_DOCUMENT } from "@/core/part/document";
import type { Refusal } from "@/core/units/refusal";
import { Denied } from "@/server/permissions";
import type { Person } from "@/server/people";
import { visitor } from "../visitor";

/** Ends a request with a plain sentence and a status. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    sentence: string,
  ) {
    super(sentence);
  }
}

export const must = <T>(r: { ok: true; value: T } | { ok: false; refusal: Refusal }): T => {
  if (!r.ok) throw new Refused(422, r.refusal.sentence);
  return r.value;
};

/** The body of a request, bounded and parsed. */
export async function body<T>(request: NextRequest, schema: z.ZodType<T>): Promise<T> {
  const text = await request.text();
  if (text.length > MAX_DOCUMENT + 1000) throw new Refused(413, "This is larger than 2 MB.");
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new Refused(400, "The request is not JSON.");
  }
  const r = schema.safeParse(data);
  if (!r.success)
    throw new Refused(
      422,
      `The request cannot be read: ${r.error.issues[0]?.path.join(".")} ${r.error.issues[0]?.message}.`,
    );
  return r.data;
}

/** A route handler for signed-in people; every failure ends in a sentence. */
export function endpoint<P extends Record<string, string>>(
  work: (person: Person, params: P, request: NextRequest) => Promise<unknown>,
) {
  return async (request: NextRequest, { params }: { params: Promise<P> }) => {
    const say = (status: number, sentence: string) => NextResponse.json({ sentence }, { status });
    try {
      // changes are only taken from our own pages
      const origin = request.headers.get("origin");
      if (request.method !== "GET" && origin && new URL(origin).host !== request.headers.get("host"))
        return say(403, "This request comes from another site.");
      const person = await visitor();
      if (!person) return say(401, "You are signed out. Sign in again in another window; nothing here is lost.");
      return NextResponse.json((await work(person, await params, request)) ?? {});
    } catch (e) {
      if (e instanceof Denied) return say(404, e.message);
      if (e instanceof Refused) return say(e.status, e.message);
      console.error(e);
      return say(500, "Something went wrong on the server. Nothing already saved is lost; try again.");
    }
  };
}
