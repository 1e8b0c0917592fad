'use client';

import { Button } from '@mui/material';
import { useRef } from 'react';
import type { KeyboardEvent } from 'react';
import { rowLetter, STUDY_FIELDS } from '@melto/core/light/brightenerStudy';

/** One question, and a large target for each field of the row; arrows go along, Enter picks. The fields are on paper, and no screen shows their colour. */
export function PickFields({ row, onPick }: { row: number; onPick: (field: number) => void }) {
  const fields = useRef<HTMLDivElement>(null);
  const move = (event: KeyboardEvent): void => {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    const buttons = [...(fields.current?.querySelectorAll('button') ?? [])];
    const at = buttons.findIndex((button) => button === document.activeElement);
    buttons[Math.min(buttons.length - 1, Math.max(0, at + step))].focus();
  };
  return (
    <div className="study-question">
      <p className="study-ask" role="status">
        Row <b>{rowLetter(row)}</b>: which field is as neutral as the grey card?
      </p>
      <div
        ref={fields}
        className="study-fields"
        role="group"
        aria-label={`Fields of row ${rowLetter(row)}`}
        onKeyDown={move}
      >
        {Array.from({ length: STUDY_FIELDS }, (_, field) => (
          <Button key={field} aria-label={`Field ${field + 1}`} onClick={() => onPick(field)}>
            {field + 1}
          </Button>
        ))}
      </div>
    </div>
  );
}
