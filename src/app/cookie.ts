/** Holds the token of a session. */
export const COOKIE = "caliper-session";

const HELD = new RegExp(`(?:^|;\\s*)${COOKIE}=([\\w-]+)`);

/** The token in the header of a request, where the framework does not read it for us. */
export const tokenIn = (header: string | null): string | undefined => HELD.exec(header ?? "")?.[1];
