"use client";

/** What a proxy answers while the server behind it is away or being started anew. */
const AWAY: ReadonlySet<number> = new Set([502, 503, 504]);

const isForPage = (init: RequestInit | undefined): boolean => new Headers(init?.headers).has("rsc");

/**
 * Takes a proxy's answer in place of a page for what it is: no connection. The framework would give the page away for
 * whatever is no page, and with it what stands on it; what fails it waits for, and asks again.
 */
export function takingProxies(own: typeof fetch): typeof fetch {
  return async (input, init) => {
    const answer = await own(input, init);
    if (AWAY.has(answer.status) && isForPage(init)) throw new TypeError("a proxy answered for a server that is away");
    return answer;
  };
}

if (typeof window !== "undefined") window.fetch = takingProxies(window.fetch.bind(window));

/** Shows nothing: it is there so that every page takes it along. */
export const Gateway = () => null;
