import { readFileSync } from "node:fs";
import http, { type IncomingHttpHeaders } from "node:http";
import { brotliDecompressSync, gunzipSync } from "node:zlib";
import { randomUUID } from "node:crypto";
import { afterAll, describe, expect, it } from "vitest";
import { closeDatabase } from "@/server/database";
import { doorShutFor, hashing, rightTry, wrongTry } from "@/server/people/doors";

afterAll(closeDatabase);
const someone = () => ({ email: `${randomUUID()}@elsewhere.example`, address: randomUUID() });

describe("the door", () => {
  it("shuts longer with each wrong try of an account from anywhere, and opens by the right one", async () => {
    const { email } = someone();
    for (let i = 0; i < 4; i++) await wrongTry(email, randomUUID());
    expect(await doorShutFor(email, randomUUID())).toBe(0);
    const waits: number[] = [];
    for (let i = 0; i < 4; i++) {
      await wrongTry(email, randomUUID());
      waits.push(await doorShutFor(email.toUpperCase(), randomUUID()));
    }
    expect(waits).toEqual([2, 4, 8, 16]);
    await rightTry(email);
    expect(await doorShutFor(email, randomUUID())).toBe(0);
  });
  it("shuts for an address that tries many accounts, and for no other address", async () => {
    const { address } = someone();
    for (let i = 0; i < 42; i++) await wrongTry(someone().email, address);
    expect(await doorShutFor(someone().email, address)).toBeGreaterThan(0);
    expect(await doorShutFor(someone().email, randomUUID())).toBe(0);
  });
  it("never shuts for more than a quarter of an hour", async () => {
    const { email } = someone();
    for (let i = 0; i < 40; i++) await wrongTry(email, randomUUID());
    expect(await doorShutFor(email, randomUUID())).toBeLessThanOrEqual(900);
  });
});

describe("hashing", () => {
  it("is done by two at once at most, each in its turn, also after a failure", async () => {
    let now = 0,
      most = 0;
    const order: number[] = [];
    const work = (i: number) =>
      hashing(async () => {
        most = Math.max(most, ++now);
        await new Promise((r) => setTimeout(r, 5));
        now--;
        order.push(i);
        if (i === 3) throw new Error("no");
      }).catch(() => {});
    await Promise.all(Array.from({ length: 12 }, (_, i) => work(i)));
    expect(most).toBeLessThanOrEqual(2);
    expect(order).toEqual([...order].sort((a, b) => a - b));
  });
});

describe("the kernel comes packed once, not anew for each", () => {
  const plain = readFileSync("public/kernel/kernel-1.1.0.wasm");
  const asked = (method: string, accepts: string) =>
    new Promise<{ headers: IncomingHttpHeaders; bytes: Buffer }>((done, fail) => {
      const request = http.request(
        `${process.env["CALIPER_URL"]}/kernel/kernel-1.1.0.wasm`,
        { method, headers: { "accept-encoding": accepts } },
        (answer) => {
          const pieces: Buffer[] = [];
          answer.on("data", (piece: Buffer) => pieces.push(piece));
          answer.on("end", () => done({ headers: answer.headers, bytes: Buffer.concat(pieces) }));
        },
      );
      request.on("error", fail).end();
    });
  it.each([
    ["gzip, deflate, br, zstd", "br", brotliDecompressSync],
    ["gzip, br;q=0", "gzip", gunzipSync],
    ["identity", undefined, (bytes: Buffer) => bytes],
    ["", undefined, (bytes: Buffer) => bytes],
  ] as const)("to who takes “%s”: %s", async (accepts, encoding, unpacked) => {
    const { headers, bytes } = await asked("GET", accepts);
    expect(headers["content-encoding"]).toBe(encoding);
    expect(headers).toMatchObject({ "content-type": "application/wasm", vary: "accept-encoding" });
    expect(Number(headers["content-length"])).toBe(bytes.length);
    expect(unpacked(bytes).equals(plain)).toBe(true);
    if (encoding) expect(bytes.length).toBeLessThan(plain.length / 3);
    const head = await asked("HEAD", accepts);
    expect([head.bytes.length, head.headers["content-length"]]).toEqual([0, headers["content-length"]]);
  });
});
