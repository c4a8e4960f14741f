"use client";

import { LayoutGrid, Rows3 } from "lucide-react";
import Link from "next/link";
import { useEffect, useState, type ReactNode } from "react";
import { PartPicture } from "./part-picture";

export type Look = "rows" | "cards";
const KEPT = "caliper-look";

/** Whether lists stand as rows or as cards; the choice is remembered in this browser. */
export function useLook(): readonly [Look, (look: Look) => void] {
  const [look, setLook] = useState<Look>("rows");
  useEffect(() => {
    if (localStorage.getItem(KEPT) === "cards") setLook("cards");
  }, []);
  const choose = (next: Look) => {
    setLook(next);
    localStorage.setItem(KEPT, next);
  };
  return [look, choose];
}

export function LookChoice({ look, choose }: { look: Look; choose: (look: Look) => void }) {
  const other = look === "rows" ? "cards" : "rows";
  const Icon = other === "cards" ? LayoutGrid : Rows3;
  return (
    <button
      className="btn btn-ghost btn-sm no-print"
      title={other === "cards" ? "As a wall of cards" : "As rows"}
      aria-label={other === "cards" ? "Show as cards" : "Show as rows"}
      onClick={() => choose(other)}
    >
      <Icon size={16} aria-hidden />
    </button>
  );
}

export interface Card {
  readonly id: string;
  readonly href: string;
  readonly title: string;
  readonly picture: string | null;
  readonly alt: string;
  readonly children?: ReactNode;
}

/** Parts side by side, to be known by their look. */
export function CardWall({ label, cards }: { label: string; cards: readonly Card[] }) {
  return (
    <ul aria-label={label} className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(10.5rem,1fr))] gap-3">
      {cards.map((c) => (
        <li key={c.id} className="relative rounded-box border border-base-300 p-2 hover:bg-base-200">
          <PartPicture hash={c.picture} alt={c.alt} isLarge />
          <Link className="mt-1 block text-sm font-medium after:absolute after:inset-0 hover:underline" href={c.href}>
            {c.title}
          </Link>
          <div className="text-xs">{c.children}</div>
        </li>
      ))}
    </ul>
  );
}
