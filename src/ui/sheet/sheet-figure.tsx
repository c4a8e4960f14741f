/** A Sheet as a still picture. The SVG is our own and every text in it is escaped where it is made. */
export function SheetFigure({ svg }: { svg: string }) {
  return (
    <div
      className="border border-base-300 [&_svg]:block [&_svg]:h-auto [&_svg]:w-full"
      role="img"
      aria-label="The Sheet"
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  );
}
