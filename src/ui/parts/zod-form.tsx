"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { useForm, type FieldValues, type Path } from "react-hook-form";
import type { z } from "zod";

/** What an action answers: what went wrong, or what was done. */
export interface Answer {
  readonly sentence?: string;
  readonly done?: string;
}
export interface FormField {
  readonly name: string;
  readonly label: string;
  readonly type?: "text" | "email" | "password" | "number";
  readonly autoComplete?: string;
  readonly hint?: string;
  readonly options?: readonly { readonly value: string; readonly text: string }[];
}

/** A form whose fields are told by the schema that the server reads them by; it never loses what was typed. */
export function ZodForm<T extends FieldValues>({
  schema,
  fields,
  initial,
  submit,
  act,
  row = false,
}: {
  schema: z.ZodType<T, T>;
  fields: readonly FormField[];
  initial: T;
  submit: string;
  act: (values: T) => Promise<Answer | void>;
  /** Fields beside each other. */
  row?: boolean;
}) {
  const { register, handleSubmit, formState, reset } = useForm<T>({
    resolver: zodResolver(schema) as never,
    defaultValues: initial as never,
  });
  const [answer, setAnswer] = useState<Answer>({});
  const send = handleSubmit(async (values) => {
    setAnswer({});
    try {
      const said = (await act(values as T)) ?? {};
      setAnswer(said);
      if (said.done) reset(initial as never);
    } catch (e) {
      // a redirection is the framework's to follow
      if ((e as { digest?: string }).digest) throw e;
      setAnswer({ sentence: "The server did not answer. Try again; what you typed is still here." });
    }
  });
  return (
    <form
      onSubmit={(e) => void send(e)}
      noValidate
      className={row ? "flex flex-wrap items-start gap-3" : "max-w-sm space-y-3"}
    >
      {fields.map((f) => {
        const trouble = formState.errors[f.name]?.message as string | undefined;
        const shared = {
          ...register(f.name as Path<T>),
          id: `field-${f.name}`,
          "aria-invalid": trouble !== undefined,
          "aria-describedby": trouble ? `trouble-${f.name}` : undefined,
        };
        return (
          <div key={f.name} className={row ? "min-w-32" : ""}>
            <label htmlFor={`field-${f.name}`} className="quiet block text-xs">
              {f.label}
            </label>
            {f.options ? (
              <select {...shared} className="select w-full">
                {f.options.map((o) => (
                  <option key={o.value} value={o.value}>
                    {o.text}
                  </option>
                ))}
              </select>
            ) : (
              <input
                {...shared}
                type={f.type ?? "text"}
                autoComplete={f.autoComplete ?? "off"}
                className="input w-full"
              />
            )}
            {f.hint && <p className="quiet text-xs">{f.hint}</p>}
            {trouble && (
              <p id={`trouble-${f.name}`} role="alert" className="text-xs text-error">
                {trouble}
              </p>
            )}
          </div>
        );
      })}
      <div className={row ? "pt-4" : ""}>
        <button className="btn btn-primary" disabled={formState.isSubmitting}>
          {submit}
        </button>
      </div>
      {answer.sentence && (
        <p role="alert" className="text-sm text-error">
          {answer.sentence}
        </p>
      )}
      {answer.done && (
        <p role="status" className="text-sm text-success">
          {answer.done}
        </p>
      )}
    </form>
  );
}
