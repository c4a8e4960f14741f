import { create } from "zustand";

/** What is looked for while drawing. Equal lengths and radii are never guessed. */
export const FINDABLE = [
  ["point", "points"],
  ["midpoint", "midpoints"],
  ["curve", "curves"],
  ["level", "level and upright"],
  ["slanted", "parallel and square"],
  ["tangent", "tangent"],
] as const;
type Findable = (typeof FINDABLE)[number][0];

const KEY = "caliper-finding";
function remembered(): readonly Findable[] {
  const all = FINDABLE.map(([k]) => k);
  try {
    const list: unknown = JSON.parse(localStorage.getItem(KEY) ?? "null");
    return Array.isArray(list) ? all.filter((k) => list.includes(k)) : all;
  } catch {
    return all;
  }
}

/** The person's choice, remembered in the browser. */
export const useFinding = create<{ kinds: readonly Findable[]; toggle(k: Findable): void }>((set, get) => ({
  kinds: remembered(),
  toggle(k) {
    const kinds = get().kinds.includes(k) ? get().kinds.filter((o) => o !== k) : [...get().kinds, k];
    localStorage.setItem(KEY, JSON.stringify(kinds));
    set({ kinds });
  },
}));
export const finds = (k: Findable): boolean => useFinding.getState().kinds.includes(k);
