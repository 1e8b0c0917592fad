import { FormControlLabel, Radio, RadioGroup } from '@mui/material';

/** Whether what a feed delivers is taken in by itself. */
export function HowTaken({
  byItself,
  onChange,
}: {
  byItself: boolean;
  onChange: (byItself: boolean) => void;
}) {
  return (
    <RadioGroup
      value={byItself ? 'self' : 'hand'}
      onChange={(event) => onChange(event.target.value === 'self')}
    >
      <FormControlLabel value="self" control={<Radio />} label="Taken in by itself, as it comes" />
      <FormControlLabel value="hand" control={<Radio />} label="Waits until somebody takes it in" />
    </RadioGroup>
  );
}
