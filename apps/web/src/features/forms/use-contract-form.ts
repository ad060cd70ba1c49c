import type * as Contract from '@mailbag/contract';
import type { DefaultValues, FieldValues, Path, PathValue, Resolver } from 'react-hook-form';
import { useEffect, useRef } from 'react';
import { useForm } from 'react-hook-form';
import { faultWords } from './fault-words';

type Classes = typeof Contract;
/** Requests of the contract, by the names of their classes. */
export type RequestName = Extract<
  { [Name in keyof Classes]: Classes[Name] extends new () => object ? Name : never }[keyof Classes],
  `${string}Request`
>;
type Body<Name extends RequestName> = InstanceType<Classes[Name]>;

/** What asks for a form to be sent: the form itself, whose page the browser must not leave, or the press of a button. */
interface Sending {
  type: string;
  preventDefault?: () => void;
}

export interface ContractForm<Values, Sent> {
  values: Values;
  set: (part: Partial<Values>) => void;
  /** Why the server would refuse a value; null: it would not, or nobody has tried to send it yet. */
  fault: (name: keyof Values | keyof Sent) => string | null;
  /** For `onSubmit` of the form, or `onPress` of a button in it: calls `send` with the body when the contract finds no fault, and else goes to the first field that has one. */
  submit: (send: (body: Sent) => void) => (event?: Sending) => void;
  reset: (values: Values) => void;
}

/**
 * A form that is judged by a request of the contract before it is sent, and from then on while it is typed in.
 * @param name of the class; null: the server judges alone, and its classes are not loaded
 * @param begin what stands in it at first
 * @param bodyOf what is sent, where that is not what stands in it
 */
export function useContractForm<Name extends RequestName, Values extends FieldValues>(
  name: Name | null,
  begin: Values,
  bodyOf: (values: Values) => Body<Name> = (values) => values as unknown as Body<Name>,
): ContractForm<Values, Body<Name>> {
  const resolver: Resolver<Values> = async (values, context, options) => {
    // Where they do not come, the server judges alone, or says that it is away.
    const classes = name === null ? null : await import('./contract-resolver').catch(() => null);
    if (name === null || classes === null) return { values, errors: {} };
    const judged = await classes.resolverOf<FieldValues>(name)(bodyOf(values), context, options as never);
    // Its values stay those of the form.
    return { values: judged.errors && Object.keys(judged.errors).length > 0 ? {} : values, errors: judged.errors } as Awaited<
      ReturnType<Resolver<Values>>
    >;
  };
  const { watch, setValue, getValues, handleSubmit, reset, formState } = useForm<Values>({
    defaultValues: begin as DefaultValues<Values>,
    resolver,
    shouldFocusError: false,
  });
  const { errors, isSubmitted, submitCount } = formState;
  /** It is being judged: who presses twice sends once. */
  const isUnderWay = useRef(false);
  const refused = useRef<{ form: Element | null; send: (body: Body<Name>) => void } | null>(null);
  // Once the faults are drawn.
  useEffect(() => {
    if (refused.current === null) return;
    const { form, send } = refused.current;
    refused.current = null;
    const field = form?.querySelector<HTMLElement>('[aria-invalid="true"]');
    // What no field of the form shows is left to the server, which has a sentence for it.
    if (field) field.focus();
    else send(bodyOf(getValues()));
  }, [submitCount, bodyOf, getValues]);
  return {
    values: watch(),
    set: (part) => {
      for (const [key, value] of Object.entries(part))
        setValue(key as Path<Values>, value as PathValue<Values, Path<Values>>, { shouldDirty: true, shouldValidate: isSubmitted });
    },
    fault: (key) => {
      const fault = (errors as Record<string, { message?: string } | undefined>)[String(key)];
      return fault ? faultWords(String(key), fault.message) : null;
    },
    submit: (send) => (event) => {
      event?.preventDefault?.();
      if (isUnderWay.current) return;
      isUnderWay.current = true;
      const form = document.activeElement?.closest('form') ?? null;
      void handleSubmit(
        (values) => send(bodyOf(values)),
        () => void (refused.current = { form, send }),
      )().finally(() => (isUnderWay.current = false));
    },
    reset: (values) => reset(values),
  };
}
