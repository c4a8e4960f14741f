import type { Locator, Page } from "playwright-core";
import { expect } from "vitest";
import { type Hand, type } from "./harness";

/** A place in a sketch on the front plane, mm. */
export type Mm = readonly [number, number];
export type Space = readonly [number, number, number];

/** The same work done by the mouse, or with the keyboard alone. */
export interface Way {
  readonly name: "mouse" | "keyboard";
  /** A tool of the tray, by its label, and on to another way of it so many times. */
  take(label: string, again?: number): Promise<void>;
  /** Presses at places of the sketch, one after the other. */
  at(...places: readonly Mm[]): Promise<void>;
  /** A number of what is being drawn. */
  typed(text: string): Promise<void>;
  /** The size that is asked for. */
  size(text: string): Promise<void>;
  /** A thing of the part. @param at where a mouse finds it */
  thing(meant: RegExp, at: Space): Promise<void>;
  number(field: Locator, text: string): Promise<void>;
  choose(select: Locator, text: string): Promise<void>;
  press(button: Locator): Promise<void>;
  accept(card: Locator): Promise<void>;
  key(name: string): Promise<void>;
}

export function byMouse(hand: Hand): Way {
  const { page } = hand;
  return {
    name: "mouse",
    async take(label, again = 0) {
      for (let i = 0; i <= again; i++)
        await page.getByRole("toolbar").getByRole("button", { name: label, exact: true }).click();
      await hand.settled();
    },
    async at(...places) {
      for (const [x, y] of places) await hand.click(...(await hand.space(x, 0, y)));
    },
    async typed(text) {
      await type(page.locator("[data-typing] input").first(), text);
      await hand.key("Enter");
    },
    async size(text) {
      await type(page.getByLabel("size", { exact: true }), text);
      await hand.key("Enter");
    },
    thing: (meant, at) => hand.touch(at, meant),
    number: type,
    async choose(select, text) {
      await select.selectOption({ label: text });
    },
    press: (button) => button.click(),
    accept: (card) => hand.accept(card),
    key: (name) => hand.key(name),
  };
}

/** Goes on with Tab until a thing has the keys, as somebody without a mouse does. */
async function tabTo(page: Page, wanted: Locator): Promise<void> {
  const has = () => wanted.evaluate((el) => el === document.activeElement || el.contains(document.activeElement));
  for (const [key, most] of [
    ["Shift+Tab", 18],
    ["Tab", 100],
  ] as const)
    for (let i = 0; i < most && !(await has()); i++) await page.keyboard.press(key);
  expect(await has()).toBe(true);
}

/** @param keys which key of the keyboard a tool has, by its label */
export function byKeyboard(hand: Hand, keys: ReadonlyMap<string, string>): Way {
  const { page } = hand;
  const pointer = async (): Promise<Mm> => {
    const text = (await page.locator("[data-key-pointer]").getAttribute("data-key-pointer"))!;
    return text.split(",").map((t) => Number(t.replace(/[^\d.-]/g, ""))) as [number, number];
  };
  /** Arrows along one way until the pointer stands there: tens of steps first. */
  const go = async (axis: 0 | 1, to: number) => {
    const [plus, minus] = axis ? ["ArrowUp", "ArrowDown"] : ["ArrowRight", "ArrowLeft"];
    const before = (await pointer())[axis];
    if (Math.abs(to - before) < 1e-6) return;
    const key = to > before ? plus : minus;
    await hand.key(key!);
    const step = Math.abs((await pointer())[axis] - before);
    const left = Math.round((Math.abs(to - before) - step) / step);
    for (let i = 0; i < Math.floor(left / 10); i++) await page.keyboard.press(`Shift+${key}`);
    for (let i = 0; i < left % 10; i++) await page.keyboard.press(key!);
    await hand.settled();
    expect((await pointer())[axis]).toBeCloseTo(to, 6);
  };
  return {
    name: "keyboard",
    async take(label, again = 0) {
      for (let i = 0; i <= again; i++) await hand.key(keys.get(label)!);
    },
    async at(...places) {
      for (const [x, y] of places) {
        if (!(await page.locator("[data-key-pointer]").count())) await hand.key("ArrowRight");
        await go(0, x);
        await go(1, y);
        await hand.key("Space");
      }
    },
    async typed(text) {
      await page.keyboard.press("Tab");
      await page.keyboard.type(text);
      await hand.key("Enter");
    },
    async size(text) {
      // it has the keys, and what stands in it is chosen
      await page.getByLabel("size", { exact: true }).waitFor();
      await page.keyboard.type(text);
      await hand.key("Enter");
    },
    async thing(meant) {
      const hover = () => page.getByTestId("solid").getAttribute("data-hover");
      await expect
        .poll(
          async () => {
            await hand.key("PageDown");
            return (await hover()) ?? "";
          },
          { timeout: 15_000, interval: 20 },
        )
        .toMatch(meant);
      await hand.key("Space");
    },
    async number(field, text) {
      await tabTo(page, field);
      await page.keyboard.press("Control+a");
      await page.keyboard.type(text);
    },
    async choose(select, text) {
      await tabTo(page, select);
      // the list opens, arrows go through it, Enter takes what they stand at
      await page.keyboard.press("ArrowDown");
      const at = () => page.evaluate(() => document.activeElement?.textContent);
      for (let i = 0; i < 12; i++) await page.keyboard.press("ArrowUp");
      for (let i = 0; i < 30 && (await at()) !== text; i++) await page.keyboard.press("ArrowDown");
      await page.keyboard.press("Enter");
      expect(await select.evaluate((el) => (el as HTMLSelectElement).selectedOptions[0]?.textContent)).toBe(text);
    },
    async press(button) {
      await tabTo(page, button);
      await page.keyboard.press("Space");
    },
    async accept(card) {
      await hand.key("Enter");
      await card.waitFor({ state: "detached" });
      await hand.built();
    },
    key: (name) => hand.key(name),
  };
}
