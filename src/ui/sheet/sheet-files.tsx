const KINDS = [
  ["pdf", "PDF"],
  ["dxf", "DXF"],
  ["svg", "SVG"],
] as const;

/** The Sheet to take along. @param of where it is had: the address without the kind of file */
export function SheetFiles({ of }: { of: string }) {
  return (
    <p className="no-print mt-2 flex items-center gap-3 text-sm">
      <span className="quiet">Sheet as</span>
      {KINDS.map(([kind, text]) => (
        <a key={kind} className="text-accent hover:underline" href={`${of}?as=${kind}`} download>
          {text}
        </a>
      ))}
    </p>
  );
}
