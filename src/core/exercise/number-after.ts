/** "WS-" and "07" of "WS-07". */
const COUNTED = /^(.*?)(\d{1,6})$/;

/** The number that comes after those of a course: of "WS-07" and "WS-12", "WS-13". Empty where none is counted. */
export function numberAfter(numbers: readonly string[]): string {
  const counted = numbers.flatMap((n) => {
    const [, before, digits] = COUNTED.exec(n) ?? [];
    return before !== undefined && digits ? [{ before, digits }] : [];
  });
  const groups = new Map<string, string[]>();
  for (const { before, digits } of counted) groups.set(before, [...(groups.get(before) ?? []), digits]);
  // those of the course are called as most of them are
  const [most] = [...groups].sort(([a, m], [b, n]) => n.length - m.length || (a < b ? -1 : 1));
  if (!most) return "";
  const [before, digits] = most;
  const next = Math.max(...digits.map(Number)) + 1;
  return `${before}${String(next).padStart(Math.max(...digits.map((d) => d.length)), "0")}`.slice(0, 20);
}
