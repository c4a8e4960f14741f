import { describe, expect, it } from "vitest";
import { takingProxies } from "./gateway";

const answering = (status: number) =>
  takingProxies((() => Promise.resolve(new Response("", { status }))) as unknown as typeof fetch);
const page = { headers: { rsc: "1" } };

describe("an answer in place of a page", () => {
  it.each([502, 503, 504])("of a proxy, %d, is no connection", async (status) =>
    expect(answering(status)("/", page)).rejects.toThrow(TypeError),
  );
  it.each([200, 307, 404, 500])("of the server, %d, is what it is", async (status) =>
    expect((await answering(status)("/", page)).status).toBe(status),
  );
  it("what is no page keeps its answer, whoever gives it", async () =>
    expect((await answering(502)("/api/works/x", { method: "PUT" })).status).toBe(502));
});
