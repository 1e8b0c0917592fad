'use client';

import { Autocomplete, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useController } from 'react-hook-form';
import type { FieldPath, FieldValues } from 'react-hook-form';
import { CONDITION_CHOICES } from '@/endpoints/conditions';
import { ask } from '@/ui/api';
import type { BodyForm } from '@/ui/form/useBodyForm';

interface InkSetText {
  /** Ink sets of the library. */
  readonly known: readonly string[];
  readonly value: string;
  readonly problem?: string;
  readonly onValue: (name: string) => void;
  readonly onBlur?: () => void;
}

/** The inks by their name: those of the library are offered, another name is a new ink set. */
export function InkSetField({ known, value, problem, onValue, onBlur }: InkSetText) {
  return (
    <Autocomplete
      freeSolo
      options={[...known]}
      inputValue={value}
      onInputChange={(_, name) => onValue(name)}
      onBlur={onBlur}
      fullWidth
      renderInput={({ slotProps, ...params }) => (
        <TextField
          {...params}
          label="Ink set"
          error={problem !== undefined}
          helperText={problem ?? 'As on its cartridges or tins'}
          slotProps={{ ...slotProps, htmlInput: { ...slotProps.htmlInput, maxLength: 80 } }}
        />
      )}
    />
  );
}

/** The same in a form. */
export function InkSetIn<V extends FieldValues>({
  form,
  name,
}: {
  form: Pick<BodyForm<V, unknown>, 'control'>;
  name: FieldPath<V>;
}) {
  const { data } = useQuery({ queryKey: ['choices'], queryFn: () => ask(CONDITION_CHOICES, {}) });
  const { field, fieldState } = useController({ control: form.control, name });
  const wrong = fieldState.isTouched ? fieldState.error?.message : undefined;
  return (
    <InkSetField
      known={data?.inkSets ?? []}
      value={(field.value ?? '') as string}
      problem={wrong}
      onValue={field.onChange}
      onBlur={field.onBlur}
    />
  );
}
