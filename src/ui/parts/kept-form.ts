import { startTransition, useActionState, type SubmitEvent } from "react";

/**
 * A form sent to an action whose fields keep what was typed, also where it is refused: the framework's own way empties
 * every field that is not controlled.
 */
export function useKeptForm<S>(act: (state: Awaited<S>, form: FormData) => S | Promise<S>, start: Awaited<S>) {
  const [said, run, busy] = useActionState<S, FormData>(act, start);
  const onSubmit = (e: SubmitEvent<HTMLFormElement>) => {
    e.preventDefault();
    const typed = new FormData(e.currentTarget);
    startTransition(() => run(typed));
  };
  return { said, busy, onSubmit };
}
