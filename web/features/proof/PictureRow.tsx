'use client';

import { MenuItem, TextField } from '@mui/material';
import { SAMPLE_PICTURES } from '@melto/core/proof/samplePicture';
import type { SamplePicture } from '@melto/core/proof/samplePicture';
import { ProfileField } from '@/features/profiles/ProfileField';
import type { ProfileSource } from '@/features/profiles/profileSource';
import type { lightsFor } from './lightsFor';
import type { OpenedPicture } from './openPicture';

/** Which picture is proofed, by what, on what, and in which light its print is seen. */
export function PictureRow({
  picture,
  meantBy,
  device,
  seenIn,
  meanings,
  sources,
  lights,
  onSample,
  onMeantBy,
  onDevice,
  onSeenIn,
}: {
  picture: OpenedPicture;
  /** Keys of the profiles; of none where that is not told yet. */
  meantBy: string;
  device: string;
  seenIn: string;
  /** What the picture's values can be meant by, and what it can be printed on. */
  meanings: readonly ProfileSource[];
  sources: readonly ProfileSource[];
  lights: ReturnType<typeof lightsFor>;
  onSample: (name: SamplePicture) => void;
  onMeantBy: (key: string) => void;
  onDevice: (key: string) => void;
  onSeenIn: (key: string) => void;
}) {
  return (
    <div className="row gamut-choice">
      <TextField
        select
        label="Picture"
        value={picture.name}
        sx={{ width: 200 }}
        onChange={(event) => onSample(event.target.value as SamplePicture)}
      >
        {picture.file !== undefined && <MenuItem value={picture.name}>{picture.name}</MenuItem>}
        {SAMPLE_PICTURES.map((name) => (
          <MenuItem key={name} value={name}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <ProfileField
        label="Its values are meant by"
        value={meantBy}
        sources={meanings}
        width={240}
        onChoose={onMeantBy}
      />
      <ProfileField label="Printed on" value={device} sources={sources} width={320} onChoose={onDevice} />
      {lights.length > 0 && (
        <TextField
          select
          label="Seen in"
          value={seenIn}
          sx={{ width: 200 }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={(event) => onSeenIn(event.target.value)}
        >
          <MenuItem value="">the light that it is built for</MenuItem>
          {lights.map(({ key, words }) => (
            <MenuItem key={key} value={key}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      )}
      {picture.file !== undefined && (
        <span className="quiet small">
          {picture.file.full}
          {picture.file.notes.map((note) => ` · ${note}`)}
        </span>
      )}
    </div>
  );
}
