import Link from "next/link";

const TABS = [
  ["", "Submissions"],
  ["/class", "Class view"],
  ["/live", "Live"],
  ["/second-check", "Second check"],
  ["/same-work", "Same work"],
] as const;
/** For instructors only. */
const TEACHING: ReadonlySet<string> = new Set(["/second-check", "/same-work"]);

/** The pages of a handout. @param here the end of the address that is shown */
export function HandoutTabs({
  handout,
  here,
  mayTeach,
}: {
  handout: string;
  here: (typeof TABS)[number][0];
  mayTeach: boolean;
}) {
  return (
    <nav className="no-print mt-3 flex gap-5 border-b border-base-300" aria-label="Handout">
      {TABS.filter(([end]) => mayTeach || !TEACHING.has(end)).map(([end, text]) => (
        <Link
          key={end}
          href={`/handouts/${handout}${end}`}
          aria-current={end === here ? "page" : undefined}
          className={`-mb-px border-b-2 pb-1.5 text-sm ${
            end === here ? "border-accent font-semibold" : "border-transparent hover:border-base-content/40"
          }`}
        >
          {text}
        </Link>
      ))}
    </nav>
  );
}
