import { describe, expect, it } from "vitest";
import { pathOf } from "./log";

describe("an address in the log", () => {
  it.each([
    ["/handouts/0b7b4d6e-6a4f-4c5c-9a53-0f2f2a1b9c77/class", "/handouts/:id/class"],
    ["/key/3fA9kQ_x-81LmZ0p2rVtYw7uIoPa", "/key/:key"],
    ["/administration?q=linnea.holt", "/administration"],
    ["/courses", "/courses"],
  ])("%s is %s", (url, path) => expect(pathOf(url)).toBe(path));
});
