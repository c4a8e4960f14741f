import Link from "next/link";
import type { ReactNode } from "react";

/** The plain frame of course pages: name at the left, person at the right. */
export function PageFrame({
  person,
  trail,
  actions,
  wide = false,
  children,
}: {
  person: { name: string };
  trail?: { href: string; text: string }[];
  actions?: ReactNode;
  /** For pages with something beside the page. */
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <div className="flex min-h-full flex-col">
      <header className="no-print flex items-center gap-3 border-b border-base-300 px-5 py-2.5">
        <Link href="/courses" className="font-semibold text-accent">
          Rusty Caliper
        </Link>
        {trail?.map((t) => (
          <span key={t.href} className="quiet">
            /{" "}
            <Link className="hover:underline" href={t.href}>
              {t.text}
            </Link>
          </span>
        ))}
        <span className="ml-auto quiet">{person.name}</span>
        {actions}
      </header>
      <main className={`mx-auto w-full flex-1 px-5 py-6 ${wide ? "max-w-[90rem]" : "max-w-6xl"}`}>{children}</main>
    </div>
  );
}
