'use client';

import { Button, Dialog } from '@mui/material';

const PLACES: readonly (readonly [system: string, place: string])[] = [
  [
    'Windows',
    'Right-click the file and choose to install it; it is kept in C:\\Windows\\System32\\spool\\drivers\\color.',
  ],
  [
    'macOS',
    'Copy it to /Library/ColorSync/Profiles for everybody, or to Library/ColorSync/Profiles in your home folder.',
  ],
  ['Linux', 'Copy it to /usr/share/color/icc for everybody, or to .local/share/icc in your home folder.'],
];

/** The file, the settings it holds for, and where each operating system keeps profiles. */
export function InstallNotes({
  resultId,
  name,
  onClose,
}: {
  resultId: number;
  name: string;
  onClose: () => void;
}) {
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="install-title">
      <div style={{ padding: 20, display: 'grid', gap: 16 }}>
        <h1 id="install-title">{name}.icc</h1>
        <dl className="facts" style={{ fontSize: 15 }}>
          {PLACES.map(([system, place]) => (
            <div key={system} style={{ display: 'contents' }}>
              <dt>{system}</dt>
              <dd>{place}</dd>
            </div>
          ))}
        </dl>
        <p className="quiet small">
          The settings go with the profile: it holds for the paper, inks and driver settings it was made with.
          Start the program that prints again afterwards, so that it finds the profile. Print with colour
          management in the program on and in the driver off.
        </p>
        <div className="row">
          <Button
            variant="contained"
            component="a"
            href={`/api/results/${resultId}/file?role=profile`}
            download
          >
            Download the profile
          </Button>
          <Button component="a" href={`/api/results/${resultId}/settings`} download>
            Download its settings
          </Button>
          <Button onClick={onClose}>Close</Button>
        </div>
      </div>
    </Dialog>
  );
}
