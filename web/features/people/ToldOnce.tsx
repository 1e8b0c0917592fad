'use client';

import { Button, Dialog } from '@mui/material';
import { useId, useState } from 'react';

/** Something that is shown once, to be copied or written down. */
export function ToldOnce({
  title,
  secret,
  detail,
  onClose,
}: {
  title: string;
  secret: string;
  detail: string;
  onClose: () => void;
}) {
  const id = useId();
  const [copied, setCopied] = useState(false);
  return (
    <Dialog open fullWidth maxWidth="sm" aria-labelledby={id}>
      <div className="dialog-form">
        <h1 id={id}>{title}</h1>
        <p className="told-once mono">{secret}</p>
        <p className="quiet">{detail}</p>
        <div className="row">
          <Button variant="contained" onClick={onClose}>
            I have it
          </Button>
          <Button
            onClick={() =>
              void navigator.clipboard?.writeText(secret).then(
                () => setCopied(true),
                () => setCopied(false),
              )
            }
          >
            {copied ? 'Copied' : 'Copy'}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
