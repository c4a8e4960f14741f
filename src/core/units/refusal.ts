/** What a user can cause and can mend: a code for programs, one plain sentence for people. */
export interface Refusal {
  readonly code: string;
  readonly sentence: string;
  /** Ids of the things the sentence is about, for highlighting. */
  readonly about?: readonly string[];
}

export type Outcome<T> =
  | { readonly ok: true; readonly value: T; readonly notice?: string }
  | { readonly ok: false; readonly refusal: Refusal };

export const done = <T>(value: T, notice?: string): Outcome<T> =>
  notice ? { ok: true, value, notice } : { ok: true, value };
export const refuse = (code: string, sentence: string, about?: readonly string[]): { ok: false; refusal: Refusal } => ({
  ok: false,
  refusal: about ? { code, sentence, about } : { code, sentence },
});
