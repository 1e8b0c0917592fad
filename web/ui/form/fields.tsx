'use client';

import { Checkbox, MenuItem, TextField } from '@mui/material';
import type { SxProps } from '@mui/material';
import type { ReactNode } from 'react';
import { useController } from 'react-hook-form';
import type { FieldPath, FieldValues } from 'react-hook-form';
import type { BodyForm } from './useBodyForm';

interface FieldOf<V extends FieldValues> {
  readonly form: Pick<BodyForm<V, unknown>, 'control'>;
  readonly name: FieldPath<V>;
  readonly label: string;
  readonly help?: ReactNode;
  readonly disabled?: boolean;
  readonly sx?: SxProps;
}

/** The value of a field and what is wrong with it, said once something was typed. */
function useField<V extends FieldValues, T>({ form, name, help }: FieldOf<V>, none: T) {
  const { field, fieldState } = useController({ control: form.control, name });
  const wrong = fieldState.error !== undefined && (fieldState.isDirty || fieldState.isTouched);
  return {
    value: (field.value ?? none) as T,
    onChange: field.onChange,
    onBlur: field.onBlur,
    inputRef: field.ref,
    error: wrong,
    helperText: wrong ? fieldState.error?.message : help,
  };
}

/** A text or a number that is typed. */
export function TextIn<V extends FieldValues>({
  most,
  lines,
  first = false,
  ...props
}: FieldOf<V> & {
  /** Letters at most. */
  readonly most?: number;
  /** Lines that it begins with, where it has several. */
  readonly lines?: number;
  /** Where the dialog begins. */
  readonly first?: boolean;
}) {
  const { label, disabled, sx } = props;
  return (
    <TextField
      {...useField(props, '')}
      {...{ label, disabled, sx }}
      autoFocus={first}
      multiline={lines !== undefined}
      minRows={lines}
      slotProps={{ htmlInput: { maxLength: most } }}
    />
  );
}

/** Any of some values, by their words; their values are a list. */
export function ChoicesIn<V extends FieldValues>({
  choices,
  ...props
}: FieldOf<V> & { readonly choices: Readonly<Record<string, string>> }) {
  const { label, disabled, sx } = props;
  const { value, ...field } = useField<V, readonly string[]>(props, []);
  return (
    <TextField
      select
      {...field}
      {...{ value, label, disabled, sx }}
      slotProps={{
        select: {
          multiple: true,
          renderValue: (chosen) => (chosen as readonly string[]).map((one) => choices[one]).join(', '),
        },
      }}
    >
      {Object.entries(choices).map(([each, words]) => (
        <MenuItem key={each} value={each}>
          <Checkbox checked={value.includes(each)} size="small" />
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** One of some values, by their words. */
export function ChoiceIn<V extends FieldValues>({
  choices,
  ...props
}: FieldOf<V> & { readonly choices: Readonly<Record<string, string>> }) {
  const { label, disabled, sx } = props;
  return (
    <TextField select {...useField(props, '')} {...{ label, disabled, sx }}>
      {Object.entries(choices).map(([value, words]) => (
        <MenuItem key={value} value={value}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}
