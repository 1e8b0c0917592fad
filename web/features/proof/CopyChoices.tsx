'use client';

import { Button, Checkbox, FormControlLabel, Slider } from '@mui/material';
import { changesPicture, EDIT_RANGES, NO_EDIT } from '@melto/core/proof/pictureEdit';
import type { PictureEdit } from '@melto/core/proof/pictureEdit';
import type { ProofChoice } from '@melto/core/proof/softProof';

const PARTS: readonly (readonly [keyof PictureEdit, string])[] = [
  ['exposure', 'Exposure'],
  ['contrast', 'Contrast'],
  ['shadows', 'Shadows'],
  ['lights', 'Lights'],
  ['saturation', 'Saturation'],
];
/** Parts that are told in whole units; the others in hundredths of their most. */
const words = (part: keyof PictureEdit, value: number): string => {
  const shown =
    part === 'exposure'
      ? value.toFixed(1)
      : String(Math.round(part === 'contrast' || part === 'saturation' ? 100 * value : value));
  return value > 0 ? `+${shown}` : shown.replace('-', '−');
};

/** A copy of the picture that is changed until its print is right; the original stays as it is. */
export function CopyChoices({
  choice,
  onChoice,
}: {
  choice: ProofChoice;
  onChoice: (choice: ProofChoice) => void;
}) {
  const edit = choice.edit ?? NO_EDIT;
  const changed = changesPicture(edit) || choice.intoGamut === true;
  const relative = choice.intent === 'relative';
  return (
    <details className="copy-choices">
      <summary>A copy that is changed{changed && <b> – it is</b>}</summary>
      <p className="quiet small">The original stays: it is what the left side shows.</p>
      {PARTS.map(([part, label]) => {
        const [min, max, step] = EDIT_RANGES[part];
        return (
          <label key={part} className="copy-part">
            <span>{label}</span>
            <Slider
              size="small"
              {...{ min, max, step }}
              track={false}
              marks={[{ value: 0 }]}
              value={edit[part]}
              aria-label={label}
              onChange={(_, value) => onChoice({ ...choice, edit: { ...edit, [part]: value as number } })}
            />
            <b className="mono">{words(part, edit[part])}</b>
          </label>
        );
      })}
      <FormControlLabel
        control={
          <Checkbox
            size="small"
            checked={relative && choice.intoGamut === true}
            disabled={!relative}
            onChange={(_, on) => onChoice({ ...choice, intoGamut: on })}
          />
        }
        label="Bring into gamut"
      />
      {!relative && (
        <p className="quiet small">
          For the relative colorimetric intent: the others bring colours in by themselves, or not at all.
        </p>
      )}
      <Button
        size="small"
        disabled={!changed}
        onClick={() => onChoice({ ...choice, edit: NO_EDIT, intoGamut: false })}
      >
        Back to the original
      </Button>
    </details>
  );
}
