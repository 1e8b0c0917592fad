'use client';

import { Checkbox, FormControlLabel, ListSubheader, MenuItem, TextField } from '@mui/material';
import { Link } from '@/ui/Link';
import { CHECK_VALID_DAYS } from '@melto/core/conformity/checkValidity';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import type { CheckChoice } from '@melto/services/conformity/checkChoice';
import type { ToleranceSetView } from '@melto/services/conformity/toleranceSets';

/** What a check is judged by: aims, tolerances, and whether the aims follow the paper. */
export function CheckChoiceFields({
  choice,
  aims,
  tolerances,
  hasSpots,
  onChange,
}: {
  choice: CheckChoice;
  aims: readonly AimSetView[];
  tolerances: readonly ToleranceSetView[];
  hasSpots: boolean;
  onChange: (choice: CheckChoice) => void;
}) {
  const aim = aims.find(({ id }) => id === choice.aimSetId);
  const tolerance = tolerances.find(({ id }) => id === choice.toleranceSetId);
  const own = aims.filter(({ family }) => family.startsWith('own-'));
  const shipped = aims.filter(({ family }) => !family.startsWith('own-'));
  return (
    <>
      <TextField
        select
        label="Aims"
        value={choice.aimSetId}
        onChange={(event) => onChange({ ...choice, aimSetId: Number(event.target.value) })}
        helperText={aim === undefined ? ' ' : aimWords(aim)}
      >
        {own.length > 0 && <ListSubheader>Own</ListSubheader>}
        {own.map(({ id, name, version }) => (
          <MenuItem key={id} value={id}>
            {name}
            {version > 1 ? `, version ${version}` : ''}
          </MenuItem>
        ))}
        <ListSubheader>Published offset conditions</ListSubheader>
        {shipped.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Tolerances"
        value={choice.toleranceSetId}
        onChange={(event) => onChange({ ...choice, toleranceSetId: Number(event.target.value) })}
        helperText={tolerance?.set.source ?? ' '}
      >
        {tolerances.map(({ id, set, version, shipped: comes }) => (
          <MenuItem key={id} value={id}>
            {set.name}
            {comes || version === 1 ? '' : `, version ${version}`}
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        control={
          <Checkbox
            checked={choice.substrateCorrected}
            onChange={(_, checked) => onChange({ ...choice, substrateCorrected: checked })}
          />
        }
        label={
          <>
            Correct the aims for the paper that is read{' '}
            <span className="quiet small">
              {tolerance?.set.substrateUncorrected === true
                ? 'the paper itself is still judged against the uncorrected aim; the verdict says so'
                : 'the verdict says so'}
            </span>
          </>
        }
      />
      {choice.substrateCorrected && hasSpots && (
        <FormControlLabel
          control={
            <Checkbox
              checked={choice.spotsMoved === true}
              onChange={(_, checked) => onChange({ ...choice, spotsMoved: checked })}
            />
          }
          label={
            <>
              Spot colours follow the paper, too{' '}
              <span className="quiet small">else each keeps its one aim on any paper</span>
            </>
          }
        />
      )}
      <div className="row">
        <TextField
          label="Check again after, days"
          type="number"
          value={choice.everyDays ?? ''}
          placeholder={String(CHECK_VALID_DAYS)}
          sx={{ width: 190, flex: 'none' }}
          slotProps={{ htmlInput: { min: 1, max: CHECK_VALID_DAYS }, inputLabel: { shrink: true } }}
          error={!daysAreRight(choice)}
          onChange={({ target: { value } }) =>
            onChange({ ...choice, everyDays: value === '' ? undefined : Number(value) })
          }
        />
        <span className="quiet small">
          {daysAreRight(choice)
            ? `Empty: ${CHECK_VALID_DAYS}, or as long as the watch holds; 7 for a list each week.`
            : `1 to ${CHECK_VALID_DAYS} whole days, or empty.`}
        </span>
        <span className="small" style={{ marginLeft: 'auto', whiteSpace: 'nowrap' }}>
          <Link href="/library/aims">Aim sets</Link> · <Link href="/library/tolerances">Tolerance sets</Link>
        </span>
      </div>
    </>
  );
}

/** Whether a check can be due again after so many days. */
export const daysAreRight = ({ everyDays }: CheckChoice): boolean =>
  everyDays === undefined || (Number.isInteger(everyDays) && everyDays >= 1 && everyDays <= CHECK_VALID_DAYS);

export function aimWords({ origin, conditions, patches, completed }: AimSetView): string {
  const mode = conditions.mode ?? 'mode not told: until it is said in the library, no check plainly conforms';
  if (completed) return `${origin} ${mode}.`;
  const plain = origin.slice(0, 120).replace(/\.$/, '');
  return plain.includes('patches') ? `${plain}; ${mode}` : `${plain}; ${patches} patches, ${mode}`;
}

/**
 * The first choice: what the last check used, else the first aims, with the tolerances of a proof, or of production for
 * a press that prints them as they are.
 */
export function firstChoice(
  aims: readonly AimSetView[],
  tolerances: readonly ToleranceSetView[],
  last: CheckChoice | undefined,
  asProof: boolean,
): CheckChoice {
  const fitting = asProof ? 'iso12647-7-proof' : 'iso12647-2-production';
  const fits = tolerances.find(({ set }) => set.id === fitting) ?? tolerances[0];
  const known = last !== undefined && aims.some(({ id }) => id === last.aimSetId);
  return {
    aimSetId: known ? last.aimSetId : (aims[0]?.id ?? 0),
    toleranceSetId:
      last !== undefined && tolerances.some(({ id }) => id === last.toleranceSetId)
        ? last.toleranceSetId
        : (fits?.id ?? 0),
    substrateCorrected: last?.substrateCorrected ?? false,
    ...{ spotsMoved: last?.spotsMoved, everyDays: last?.everyDays },
  };
}

/** What the shown check was judged by. */
export function choiceOf(
  detail: unknown,
  /** After how many days it said to be due again. */
  validDays: number | null = null,
): CheckChoice | undefined {
  if (typeof detail !== 'object' || detail === null || !('kind' in detail)) return undefined;
  const { header, substrateCorrected, spotsMoved } = detail as unknown as {
    header: { aims: { id: number }; tolerances: { id: number } };
    substrateCorrected: boolean;
    spotsMoved?: boolean;
  };
  return {
    ...{ aimSetId: header.aims.id, toleranceSetId: header.tolerances.id },
    ...{ substrateCorrected, spotsMoved, everyDays: validDays ?? undefined },
  };
}
