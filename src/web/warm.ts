import { randomBytes } from "node:crypto";
import { readPart } from "@/core/part/document";
import { admit, Denied } from "@/server/permissions";

const ROUNDS = 60;
/** As many at once as the pool has connections. */
const AT_ONCE = 10;

/** A part as a student might send it, of some size. */
function somePart() {
  const curves = Array.from({ length: 100 }, (_, i) => ({ id: `l${i}`, kind: "line", start: [i, 0], end: [0, i] }));
  const sketch = { plane: { base: "top" }, curves, constraints: [], dimensions: [] };
  const about = { format: "caliper-part", version: 1, name: "", units: "mm" };
  return { ...about, material: { name: "Steel", density: 7.85 }, steps: [{ id: "s", kind: "sketch", sketch }] };
}

/**
 * A process that has just started is slow: nothing is compiled, no connection open. Started again while a class saves,
 * it would let the first two hundred wait; so it goes the way of a save some times before anybody comes.
 */
export async function warmUp(address: string): Promise<void> {
  const part = JSON.stringify(somePart());
  const nobody = "00000000-0000-4000-8000-000000000000";
  const cookie = `caliper-session=${randomBytes(32).toString("base64url")}`;
  const headers = { cookie, "content-type": "application/json" };
  for (let i = 0; i < ROUNDS; i++) {
    readPart(JSON.parse(part));
    const asked = Array.from({ length: AT_ONCE }, () =>
      Promise.all([
        admit("none", "handout.work", nobody),
        fetch(`${address}/api/works/${nobody}`, { method: "PUT", headers, body: part }).then((r) => r.text()),
      ]),
    );
    await Promise.all(asked).catch((e: unknown) => {
      if (!(e instanceof Denied)) throw e;
    });
  }
}
