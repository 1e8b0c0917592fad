'use client';

import { Button, Dialog } from '@mui/material';
import { PROFILE_PLACES, PROFILE_PLACES_NOTE } from '@melto/core/profile/profilePlaces';

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
          {PROFILE_PLACES.map(([system, place]) => (
            <div key={system} style={{ display: 'contents' }}>
              <dt>{system}</dt>
              <dd>{place}</dd>
            </div>
          ))}
        </dl>
        <p className="quiet small">{PROFILE_PLACES_NOTE}</p>
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
          <Button component="a" href={`/api/results/${resultId}/package`} download>
            All of it as a package
          </Button>
          <Button onClick={onClose}>Close</Button>
        </div>
      </div>
    </Dialog>
  );
}
