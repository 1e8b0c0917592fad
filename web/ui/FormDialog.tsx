'use client';

import { Button, Dialog } from '@mui/material';
import { useId } from 'react';
import type { ReactNode } from 'react';
import { useSending } from './useSending';

/** A dialog with a form: its title, its fields, one act and a way out; what the act refuses stands above the two. */
export function FormDialog({
  title,
  act,
  ready = true,
  problem,
  beside,
  out = 'Not now',
  children,
  onSubmit,
  onClose,
}: {
  title: string;
  /** Word of the button. */
  act: string;
  ready?: boolean;
  /** What is wrong already, in words. */
  problem?: string;
  /** Word of the way out; null where the act is the only one. */
  out?: string | null;
  /** What stands beside the buttons. */
  beside?: ReactNode;
  children: ReactNode;
  /** What it throws is shown; it closes the dialog itself. */
  onSubmit: () => Promise<unknown> | void;
  onClose: () => void;
}) {
  const id = useId();
  const { sending, problem: refused, run } = useSending();
  const words = refused ?? problem;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby={id}>
      <form
        className="dialog-form"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) void run(async () => onSubmit());
        }}
      >
        <h1 id={id}>{title}</h1>
        {children}
        {words !== undefined && (
          <p className="error" role="alert">
            {words}
          </p>
        )}
        <div className="row">
          <Button type="submit" variant="contained" disabled={!ready || sending}>
            {act}
          </Button>
          {out !== null && <Button onClick={onClose}>{out}</Button>}
          {beside}
        </div>
      </form>
    </Dialog>
  );
}
