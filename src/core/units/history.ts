/** A document as it was before and after: every kind of document is undone alike. */
export interface History<D> {
  readonly past: readonly D[];
  readonly present: D;
  readonly future: readonly D[];
}

export const startHistory = <D>(present: D): History<D> => ({ past: [], present, future: [] });

/** Goes on from a change; what was undone is gone. @param most so many of the past are kept; all where left out */
export const record = <D>(h: History<D>, present: D, most = Infinity): History<D> =>
  present === h.present
    ? h
    : { past: most === Infinity ? [...h.past, h.present] : [...h.past, h.present].slice(-most), present, future: [] };

export const undo = <D>(h: History<D>): History<D> =>
  h.past.length
    ? { past: h.past.slice(0, -1), present: h.past[h.past.length - 1]!, future: [h.present, ...h.future] }
    : h;

export const redo = <D>(h: History<D>): History<D> =>
  h.future.length ? { past: [...h.past, h.present], present: h.future[0]!, future: h.future.slice(1) } : h;

/** What somebody else has changed is so in all that can be gone back to, and forward. */
export const mapHistory = <D>({ past, present, future }: History<D>, f: (document: D) => D): History<D> => ({
  past: past.map(f),
  present: f(present),
  future: future.map(f),
});
