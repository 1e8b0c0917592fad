'use client';

import { Button, Menu, MenuItem } from '@mui/material';
import type { Remote } from 'comlink';
import { useState } from 'react';
import type { SamplePicture } from '@melto/core/proof/samplePicture';
import type { ProofChoice } from '@melto/core/proof/softProof';
import type { ProfileSource } from '@/features/profiles/profileSource';
import { problemWords } from '@/ui/api';
import { plainName, save } from '@/ui/save';
import { WRITTEN_SIDE } from '@/workers/writtenSide';
import type { ProofFile, ProofWorker } from '@/workers/proof.worker';
import type { OpenedPicture } from './openPicture';
import { sentTo } from './useProof';

const FILES: readonly (readonly [ProofFile, string, string])[] = [
  ['device', 'values for the device', 'with the profile it is printed by'],
  ['print', 'the print as it looks', 'for a screen, in sRGB'],
  ['copy', 'the copy', 'in the picture’s own space, not printed'],
];

/** Writes what the proof shows as a TIFF, each pixel by the exact way. */
export function WriteProof({
  worker,
  picture,
  device,
  seenBy,
  choice,
  screen,
}: {
  worker: Remote<ProofWorker>;
  picture: OpenedPicture;
  device: ProfileSource;
  /** For the light that the print is seen in, where that is another. */
  seenBy: ProfileSource | undefined;
  choice: ProofChoice;
  /** The profile of sRGB. */
  screen: ProfileSource | undefined;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const write = async (file: ProofFile): Promise<void> => {
    setAnchor(null);
    setBusy(true);
    setProblem(undefined);
    try {
      const [sent, own] = await Promise.all([
        sentTo(worker, { device, choice, seenBy }),
        screen?.bytes() ?? new Uint8Array(0),
      ]);
      const whole = picture.file?.from ?? (picture.name as SamplePicture);
      const made = await worker.write(sent, whole, file, own);
      if (typeof made === 'string') setProblem(made);
      else
        save(
          `${plainName(picture.name.replace(/\.\w+$/, ''))}_${file === 'copy' ? 'copy' : plainName(device.label)}${file === 'print' ? '_print' : ''}.tif`,
          new Blob([made], { type: 'image/tiff' }),
        );
    } catch (error) {
      setProblem(problemWords(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <Button size="small" disabled={busy} onClick={({ currentTarget }) => setAnchor(currentTarget)}>
        {busy ? 'Writing…' : 'Write a TIFF'}
      </Button>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {FILES.filter(([file]) => file !== 'print' || screen !== undefined).map(([file, label, detail]) => (
          <MenuItem key={file} onClick={() => void write(file)}>
            <span>
              {label}
              <span className="quiet small"> {detail}</span>
            </span>
          </MenuItem>
        ))}
      </Menu>
      <p className="quiet small">
        Up to {WRITTEN_SIDE.toLocaleString('en-GB')} pixels a side; <span className="mono">melto proof</span>{' '}
        writes larger ones.
      </p>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
    </>
  );
}
