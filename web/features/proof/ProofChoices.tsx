'use client';

import {
  Checkbox,
  FormControlLabel,
  MenuItem,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
} from '@mui/material';
import type { ProofOverlay } from '@melto/core/proof/bakedProof';
import type { ProofChoice } from '@melto/core/proof/softProof';
import { OVERLAY_WHOLE_AT } from '@/workers/proofOverlay';

const INTENTS: Readonly<Record<ProofChoice['intent'], string>> = {
  perceptual: 'perceptual',
  relative: 'relative colorimetric',
  saturation: 'saturation',
  absolute: 'absolute colorimetric',
};

const OVERLAYS: readonly (readonly [ProofOverlay, string])[] = [
  ['none', 'print'],
  ['out of gamut', 'what is lost'],
  ['ink', 'ink'],
];

/** How the picture goes to the device, and how its print is shown. */
export function ProofChoices({
  choice,
  overlay,
  onChoice,
  onOverlay,
  inked,
}: {
  choice: ProofChoice;
  overlay: ProofOverlay;
  onChoice: (choice: ProofChoice) => void;
  onOverlay: (overlay: ProofOverlay) => void;
  /** The device takes inks, whose sum can be shown. */
  inked: boolean;
}) {
  const check = (field: 'blackPoint' | 'paperWhite' | 'inkBlack', label: string, disabled = false) => (
    <FormControlLabel
      control={
        <Checkbox
          size="small"
          checked={choice[field] && !disabled}
          disabled={disabled}
          onChange={(_, on) => onChoice({ ...choice, [field]: on })}
        />
      }
      label={label}
    />
  );
  return (
    <div className="proof-choices">
      <TextField
        select
        label="Intent"
        value={choice.intent}
        onChange={(event) => onChoice({ ...choice, intent: event.target.value as ProofChoice['intent'] })}
      >
        {Object.entries(INTENTS).map(([intent, words]) => (
          <MenuItem key={intent} value={intent}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      {check('blackPoint', 'Black point compensation', choice.intent === 'absolute')}
      {check('paperWhite', 'White of the paper')}
      {check('inkBlack', 'Black of the inks')}
      <ToggleButtonGroup
        exclusive
        size="small"
        value={overlay}
        aria-label="What the right side shows"
        onChange={(_, chosen: ProofOverlay | null) => chosen !== null && onOverlay(chosen)}
      >
        {OVERLAYS.map(([value, words]) => (
          <ToggleButton key={value} value={value} disabled={value === 'ink' && !inked}>
            {words}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {overlay === 'out of gamut' && (
        <p className="quiet small">
          Grey comes out as asked, within 1 ΔE00; a colour is whole where {OVERLAY_WHOLE_AT} ΔE00 are lost.
        </p>
      )}
      {overlay === 'ink' && <p className="quiet small">White is no ink, black is all of it in full.</p>}
    </div>
  );
}
