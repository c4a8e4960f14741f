import type { Page } from "playwright-core";
import type { Hand } from "./harness";

export type Place = readonly [number, number];

/** What a hand does again and again in the sketches of a Bench. */
export function sketchHand(hand: Hand, page: Page) {
  return {
    /** A new sketch for what follows. */
    fresh: async () => {
      for (let i = 0; i < 8 && (await page.getByTestId("sketch").count()); i++) await hand.key("Escape");
      await hand.sketchOn("front");
    },
    /** The sketch as empty as it began. */
    cleared: async () => {
      await hand.key("q");
      for (let i = 0; i < 40 && (await hand.curves()); i++) await hand.key("Control+z");
      await hand.key("Home");
    },
    /** A line at two places, nothing found. */
    line: async (a: Place, b: Place) => {
      await hand.key("w");
      await page.keyboard.down("Shift");
      await hand.places(a, b);
      await page.keyboard.up("Shift");
      await hand.keys("Escape q");
    },
    circle: async (c: Place, r: number) => {
      await hand.key("r");
      await hand.places(c, [c[0] + r, c[1]]);
      await hand.key("q");
    },
    marks: (kind: string) => page.getByLabel(new RegExp(`^${kind} constraint`)).count(),
  };
}
