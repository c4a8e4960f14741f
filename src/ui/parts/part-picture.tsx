/** Its width and height in a row; a card is as wide as there is room. */
const ROW = { width: 64, height: 48 };

/**
 * A part as a line drawing. What it says to somebody who cannot see it names the part; where a name stands beside it
 * already it says nothing.
 */
export function PartPicture({
  hash,
  alt,
  isLarge = false,
}: {
  /** What it is asked for by; none: an empty frame, so that rows keep their height. */
  hash: string | null | undefined;
  alt: string;
  isLarge?: boolean;
}) {
  const size = isLarge ? "aspect-[4/3] w-full" : "h-12 w-16";
  if (!hash) return <span aria-hidden className={`block ${size} border border-dashed border-base-300`} />;
  return (
    <img
      src={`/api/pictures/${hash}`}
      alt={alt}
      loading="lazy"
      decoding="async"
      {...(!isLarge && ROW)}
      className={`block ${size} max-w-none object-contain`}
    />
  );
}
