import type { Proof } from "@/core/sheet/proof/proof";
import { percentText } from "@/core/units/amounts";

/** A share of the mass below this is a rounding of the program, not of the print. */
const WORTH_TELLING = 1 / 1_000_000;

/**
 * Whether the Sheet says enough, and only once; what it leaves open, one line each.
 * @param show is told which line is pointed at
 */
export function ProofList({ proof, show }: { proof: Proof; show?: (sentence: string | undefined) => void }) {
  const { points, ways, told, attainable } = proof;
  return (
    <section aria-label="Sheet proof" className="mb-3 text-sm">
      <h3 className="font-semibold">Sheet proof</h3>
      {points.length === 0 ? (
        <p>
          <span className="text-success" aria-hidden>
            ✓
          </span>{" "}
          It says all there is to know, and nothing twice.
        </p>
      ) : (
        <ul className="mt-1 list-disc space-y-1 pl-5 text-accent" data-testid="open-points">
          {points.map((point) => (
            <li
              key={point.sentence}
              data-kind={point.kind}
              onMouseEnter={show && (() => show(point.sentence))}
              onMouseLeave={show && (() => show(undefined))}
            >
              {point.sentence}
            </li>
          ))}
        </ul>
      )}
      <p className="quiet mt-1">
        <span data-testid="rank">
          {told} of {ways}
        </span>{" "}
        ways the shape can change are told.{" "}
        {attainable > WORTH_TELLING && (
          <>Worked from the rounded print, the mass is met within {percentText(attainable)}.</>
        )}
      </p>
    </section>
  );
}
