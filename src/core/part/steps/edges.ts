import { largestShare } from "@/core/kernel/blend";
import type { Solid } from "@/core/kernel/solid";
import type { Topology } from "@/core/kernel/topology";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { edgeOf } from "../reference/resolve";
import type { EdgeRef } from "@/core/naming/reference";
import { edgeText } from "../reference/text";
import { begun } from "@/core/naming/words";
import type { StepEdge } from "./fields";
import { refuseLost, type Body, type BuildContext, type Missing, type StepResult } from "./step";

interface FoundEdge<G> {
  readonly group: G;
  readonly id: string;
  readonly ref: EdgeRef;
  readonly index: number;
  /** Of a chamfer of two sizes: this edge has them the other way round than its group. */
  readonly swap: boolean;
}

type EdgeGroup = { readonly edges: readonly (StepEdge & { readonly swap?: boolean | undefined })[] };

/** The edges of all groups that are there, each once, and those that are lost. */
function findEdges<G extends EdgeGroup>(
  context: BuildContext,
  groups: readonly G[],
): { found: FoundEdge<G>[]; lost: Missing[] } {
  const found: FoundEdge<G>[] = [],
    lost: Missing[] = [],
    seen = new Set<number>();
  groups.forEach((group) =>
    group.edges.forEach((e) => {
      const r = edgeOf(context, e.on);
      if (!r.ok) lost.push({ ref: e.on, sentence: r.refusal.sentence });
      else if (!seen.has(r.value)) {
        seen.add(r.value);
        found.push({ group, id: e.id, ref: e.on, index: r.value, swap: e.swap === true });
      }
    }),
  );
  return { found, lost };
}

/**
 * Works on edges body by body. Where a size cannot be made, finds the edge that fails alone and the largest size of
 * it that can be made.
 * @param blend builds on one body; a share below 1 makes everything that much smaller
 * @param size how a group's size reads at a share
 */
export function blendEdges<G extends EdgeGroup>(
  context: BuildContext,
  step: { readonly id: string },
  groups: readonly G[],
  blend: (solid: Solid, t: Topology, list: readonly FoundEdge<G>[], share: number) => Solid | undefined,
  size: (group: G, share: number) => string,
): Outcome<StepResult> {
  const { kernel, bodies } = context,
    t = context.topology();
  if (!t) return refuse("no-body", "There is no part yet whose edges could be worked on.", [step.id]);
  const { found, lost } = findEdges(context, groups);
  if (!found.length)
    return lost.length
      ? refuseLost("lost-reference", lost, [step.id])
      : refuse("no-edges", "Pick the edges.", [step.id]);
  // which body an edge is of: faces of the whole stand in the order of the bodies
  const starts: number[] = [];
  bodies.reduce((n, b, i) => ((starts[i] = n), n + b.solid.names.length), 0);
  const bodyOf = (edge: number) => starts.findLastIndex((s) => s <= t.edgeFaces[edge]![0]!);
  const after: Body[] = [];
  for (const [i, b] of bodies.entries()) {
    const own = found.filter((f) => bodyOf(f.index) === i);
    const solid = own.length ? blend(b.solid, t, own, 1) : b.solid;
    if (!solid) {
      kernel.release(...after.filter((x) => !bodies.includes(x)).map((x) => x.solid.shape));
      const bad = own.find((f) => {
        const s = blend(b.solid, t, [f], 1);
        kernel.release(s?.shape);
        return !s;
      });
      const share = largestShare(
        (k) => blend(b.solid, t, bad ? [bad] : own, k),
        (s) => kernel.release(s.shape),
      );
      const most =
        share > 0.002 ? ` The largest that can be made there is about ${size((bad ?? own[0]!).group, share)}.` : "";
      return refuse(
        "too-large",
        bad
          ? `${begun(edgeText(bad.ref, context.unit))} cannot take ${size(bad.group, 1)}.${most}`
          : `These sizes cannot be made together: they run into each other.${most}`,
        [step.id, ...(bad ? [bad.id] : [])],
      );
    }
    after.push(solid === b.solid ? b : { id: b.id, solid });
  }
  return done({ bodies: after, ...(lost.length && { lost }) });
}
