import { linePicture } from "@/server/files/line-pictures";
import { memberEndpoint, Refused } from "../../endpoint";

const HASH = /^[0-9a-f]{40}$/;

/**
 * A line drawing by what is in it: who knows its hash has been shown it. It never changes, so that a browser asks for
 * it once.
 */
export const GET = memberEndpoint<{ hash: string }>(async (_, { hash }) => {
  const svg = HASH.test(hash) ? await linePicture(hash) : undefined;
  if (!svg) throw new Refused(404, "There is no picture by this address.");
  return new Response(svg, {
    headers: { "content-type": "image/svg+xml", "cache-control": "private, max-age=31536000, immutable" },
  });
});
