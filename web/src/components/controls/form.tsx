// Forms as all of ours are: react-hook-form, one call to the server, faults back at their fields.
import { useMutation } from "@tanstack/react-query";
import {
  type DefaultValues,
  type FieldValues,
  type Path,
  type UseFormReturn,
  useForm,
} from "react-hook-form";
import { Problem } from "../../api/problem";
import { type FieldProps, TextField } from "./TextField";

interface Options<T extends FieldValues, R> {
  defaults: DefaultValues<T>;
  send: (values: T) => Promise<R>;
  onDone: (result: R, values: T) => void;
  onRefused?: (problem: Problem) => void;
}

export function useServerForm<T extends FieldValues, R>(options: Options<T, R>) {
  const { defaults, send, onDone, onRefused } = options;
  const form = useForm<T>({ defaultValues: defaults });
  const fields = Object.keys(defaults);
  const call = useMutation({
    mutationFn: send,
    onSuccess: onDone,
    onError: (error) => {
      if (!(error instanceof Problem)) return;
      for (const fault of error.faults) {
        if (fields.includes(fault.path))
          form.setError(fault.path as Path<T>, { message: fault.problem });
      }
      onRefused?.(error);
    },
  });
  const submit = form.handleSubmit((values) => call.mutate(values));
  return { form, fields, submit, busy: call.isPending, error: call.error };
}

interface FormFieldProps<T extends FieldValues> extends FieldProps {
  form: UseFormReturn<T>;
  name: Path<T>;
}

/** A text field of a form, its fault beside it. */
export function FormField<T extends FieldValues>({ form, name, ...rest }: FormFieldProps<T>) {
  const fault = form.formState.errors[name]?.message;
  return <TextField {...rest} {...form.register(name)} fault={fault ? String(fault) : null} />;
}
