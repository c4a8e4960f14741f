import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeDatabase, one, rows } from "@/server/database";
import { letters, post, sendLetters } from "@/server/people/outbox";

const mine = `${randomUUID()}@elsewhere.example`;
/** What others wait for is not this test's. */
const others = "update outbox set next_at = $1 where sent_at is null and address <> $2";
beforeAll(() => rows(others, [new Date(Date.now() + 3_600_000), mine]));
afterAll(async () => {
  await rows("delete from outbox where address = $1", [mine]);
  await rows(others, [new Date(), mine]);
  await closeDatabase();
});

const written = async (body: string) => {
  await post({ address: mine, subject: "A way in", body });
  return (await one<{ id: string }>("select id from outbox where address = $1 and body = $2", [mine, body])).id;
};
const said = async (id: string) => (await letters()).find((l) => l.id === id)!;
const due = (id: string) => rows("update outbox set next_at = now() where id = $1", [id]);
const pause = async (id: string) =>
  (
    await one<{ minutes: number }>(
      "select round(extract(epoch from next_at - now()) / 60)::int as minutes from outbox where id = $1",
      [id],
    )
  ).minutes;

describe("letters", () => {
  it("are sent once, also by two processes at once", async () => {
    const ids = await Promise.all(["a", "b", "c"].map(written));
    const sent: string[] = [];
    const slowly = async ({ text }: { text: string }) => {
      await new Promise((r) => setTimeout(r, 30));
      sent.push(text);
    };
    await Promise.all([sendLetters(slowly), sendLetters(slowly)]);
    expect(sent.sort()).toEqual(["a", "b", "c"]);
    for (const id of ids) expect((await said(id)).sent_at).not.toBeNull();
    expect(await sendLetters(slowly)).toBe(0);
  });
  it("that are refused say why, wait longer each time, hold no other up, and are given up in the end", async () => {
    const [bad, good] = [await written("bad"), await written("good")];
    const refusing = async ({ text }: { text: string }) => {
      if (text === "bad") throw Object.assign(new Error("no"), { code: "EENVELOPE", response: "550 no such mailbox" });
    };
    expect(await sendLetters(refusing)).toBe(1);
    expect((await said(good)).sent_at).not.toBeNull();
    expect((await said(bad)).trouble).toMatch(/says: 550 no such mailbox/);
    const waits = [await pause(bad)];
    for (let i = 0; i < 9; i++) {
      await due(bad);
      await sendLetters(refusing);
      waits.push(await pause(bad));
    }
    expect(waits).toEqual([1, 2, 4, 8, 16, 32, 64, 128, 180, 180]);
    await rows("update outbox set made_at = now() - interval '73 hours', next_at = now() where id = $1", [bad]);
    expect(await sendLetters(() => Promise.resolve())).toBe(0);
    expect((await said(bad)).trouble).toMatch(/^Given up after 3 days\./);
  });
  it("of a process that died while it sent are taken up again after a while", async () => {
    const id = await written("claimed");
    void sendLetters(() => new Promise(() => {}));
    await new Promise((r) => setTimeout(r, 100));
    expect(await sendLetters(() => Promise.resolve())).toBe(0);
    await due(id);
    expect(await sendLetters(() => Promise.resolve())).toBe(1);
  });
});
