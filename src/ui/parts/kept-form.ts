import { startTransition, useActionState, useState, type SubmitEvent } from "react";

/**
 * A form sent to an action whose fields keep what was typed, also where it is refused: the framework's own way empties
 * every field that is not controlled.
 * @param before what has to be done before it is sent; may add to it
 */
export function useKeptForm<S>(
  act: (state: Awaited<S>, form: FormData) => S | Promise<S>,
  start: Awaited<S>,
  before?: (form: FormData) => Promise<void>,
) {
  const [said, run, busy] = useActionState<S, FormData>(act, start);
  const [isWaiting, setWaiting] = useState(false);
  const onSubmit = async (e: SubmitEvent<HTMLFormElement>) => {
    e.preventDefault();
    const typed = new FormData(e.currentTarget);
    if (before) {
      setWaiting(true);
      await before(typed).finally(() => setWaiting(false));
    }
    startTransition(() => run(typed));
  };
  return { said, busy: busy || isWaiting, onSubmit };
}
