'use client';

import { channelCount, drivenByLight } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { manyInkPoints } from '@melto/core/profile/manyInkGrid';
import { MenuItem, TextField } from '@mui/material';
import { DEFAULT_NAME_PATTERN, profileName } from '@melto/core/profile/describeProfile';
import type { TableSize } from '@melto/core/profile/buildRgbProfile';
import { LightField } from '@/features/light/LightField';
import { UltravioletField } from '@/features/light/UltravioletField';
import { DAYLIGHT, partsOf, useLights } from '@/features/light/useLights';
import type { LightChoice } from '@melto/services/ledger/kinds/profileKind';
import type { ConditionRow } from '@melto/services/ledger/conditions';

/** How the file is to be: ICC version, tables, name. */
export interface ProfileFile {
  readonly version: 2 | 4;
  readonly tableSize: TableSize;
  readonly namePattern: string;
  /** Undefined for D50 and the 2° observer. */
  readonly light?: LightChoice;
}

export const DEFAULT_FILE: ProfileFile = {
  version: 4,
  tableSize: 'normal',
  namePattern: DEFAULT_NAME_PATTERN,
};

const TABLE_WORDS: Readonly<Record<'rgb' | 'inks', Readonly<Record<string, string>>>> = {
  rgb: {
    small: '17³: a small file, coarser',
    normal: '33³ each way',
    large: '45³ and 49³: three times the time',
  },
  inks: {
    small: '11⁴ and 17³: a small file, coarser',
    normal: '17⁴ and 33³',
    large: '21⁴ and 49³: three times the time',
  },
};

const INVERSE_POINTS: Readonly<Record<TableSize, number>> = { small: 17, normal: 33, large: 49 };

/** Nodes of the tables in words: with more inks there are fewer along each. */
function tableWords(process: Process): Readonly<Record<string, string>> {
  const channels = channelCount(process);
  if (channels <= 4) return TABLE_WORDS[drivenByLight(process) ? 'rgb' : 'inks'];
  return Object.fromEntries(
    TABLE_SIZES.map((size) => [
      size,
      `${manyInkPoints(channels, size)} nodes along each of ${channels} inks, and ${INVERSE_POINTS[size]}³`,
    ]),
  );
}

const TABLE_SIZES = ['small', 'normal', 'large'] as const;

export function ProfileFileFields({
  condition,
  readingIds,
  file,
  onChange,
}: {
  condition: ConditionRow;
  /** Readings that it is built from. */
  readingIds: readonly number[];
  file: ProfileFile;
  onChange: (changed: Partial<ProfileFile>) => void;
}) {
  const known = useLights().find(({ key }) => key === file.light?.key)?.ultraviolet?.share;
  const words = tableWords(condition.process);
  return (
    <>
      <TextField
        select
        label="ICC version"
        value={file.version}
        onChange={(event) => onChange({ version: Number(event.target.value) === 2 ? 2 : 4 })}
        helperText={file.version === 2 ? 'For older software.' : 'For current software.'}
      >
        <MenuItem value={4}>4</MenuItem>
        <MenuItem value={2}>2</MenuItem>
      </TextField>
      <TextField
        select
        label="Tables"
        value={file.tableSize}
        onChange={(event) =>
          onChange({ tableSize: TABLE_SIZES.find((size) => size === event.target.value) ?? 'normal' })
        }
        helperText={words[file.tableSize]}
      >
        {Object.keys(words).map((size) => (
          <MenuItem key={size} value={size}>
            {size}
          </MenuItem>
        ))}
      </TextField>
      <LightField
        label="For the light"
        value={file.light === undefined ? DAYLIGHT : `${file.light.key}/${file.light.observer}`}
        onChange={(seen) => onChange({ light: seen === DAYLIGHT ? undefined : partsOf(seen) })}
        help={
          file.light === undefined
            ? 'How prints are compared and proven.'
            : 'It stands beside the one in force, which stays so. Takes a reading with spectra.'
        }
      />
      {file.light !== undefined && (
        <UltravioletField
          key={`${file.light.key} ${readingIds.join()}`}
          known={known}
          readingIds={readingIds}
          value={file.light.uv}
          onChange={(uv) => onChange({ light: file.light === undefined ? undefined : { ...file.light, uv } })}
        />
      )}
      <TextField
        label="Name"
        value={file.namePattern}
        error={file.namePattern.trim() === ''}
        onChange={(event) => onChange({ namePattern: event.target.value })}
        helperText={`Filled in, for example: ${profileName(file.namePattern, { device: condition.device, stock: condition.stock, mode: condition.mode, date: '2026-03-14' })}.icc`}
      />
    </>
  );
}
