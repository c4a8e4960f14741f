/**
 * A step stands in a text between marks, by its id, because the text is made where the list of Steps is not at hand;
 * `withStepsCalled` puts in how the list shows it.
 */
export const stepMark = (id: string): string => `‹${id}›`;

/** A text with its steps called as the list of Steps shows them: "step 2". */
export function withStepsCalled(text: string, steps: readonly { readonly id: string }[]): string {
  return text.replace(/‹([^›]*)›/g, (_, id: string) => {
    const at = steps.findIndex((s) => s.id === id);
    return at < 0 ? "an earlier step" : `step ${at + 1}`;
  });
}

/** As a sentence begins. */
export const begun = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1);
