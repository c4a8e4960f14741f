"use client";

import { useState } from "react";
import { pngOf } from "./png";

const KINDS = [
  ["pdf", "PDF"],
  ["dxf", "DXF"],
  ["svg", "SVG"],
] as const;

/** The Sheet to take along, or to print. @param of where it is had: the address without the kind of file */
export function SheetFiles({ of }: { of: string }) {
  const [trouble, setTrouble] = useState("");
  return (
    <p className="no-print mt-2 flex flex-wrap items-center gap-x-3 text-sm">
      <a className="text-accent hover:underline" href={`${of}?as=pdf&show`} target="_blank" rel="noreferrer">
        Print the Sheet
      </a>
      <span className="quiet">or keep it as</span>
      {KINDS.map(([kind, text]) => (
        <a key={kind} className="text-accent hover:underline" href={`${of}?as=${kind}`} download>
          {text}
        </a>
      ))}
      <button
        type="button"
        className="text-accent hover:underline"
        onClick={() =>
          pngOf(`${of}?as=svg`).then(
            () => setTrouble(""),
            () => setTrouble("The picture could not be made. Take the SVG, or try once more."),
          )
        }
      >
        PNG
      </button>
      {trouble && (
        <span role="alert" className="text-error">
          {trouble}
        </span>
      )}
    </p>
  );
}
