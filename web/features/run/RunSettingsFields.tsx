import { MenuItem, TextField } from '@mui/material';
import {
  GUIDES,
  RUN_FORMULAS,
  RUN_STATUSES,
  WHITE_BASES,
  USUAL_SETTINGS,
  USUAL_TOLERANCES,
} from '@melto/core/press/runSettings';
import { STANDARD_LIGHTS } from '@melto/core/light/standardLights';
import { lightWords, USUAL_LIGHT } from '@melto/core/press/runLight';
import { OBSERVERS, observerWords } from '@melto/core/spectral/xyzWeights';
import { numberOf } from '@/ui/numberOf';
import type { RunSettings, RunTolerances } from '@melto/core/press/runSettings';

/** Settings of a run as they are typed. */
export interface TypedSettings extends Omit<RunSettings, 'settle' | 'tolerances' | 'densities'> {
  readonly settle: string;
  readonly tolerances: Readonly<Record<keyof RunTolerances, string>>;
  readonly densities: Readonly<Record<string, string>>;
}

const TOLERANCE_WORDS: readonly (readonly [keyof RunTolerances, string])[] = [
  ['solids', 'C, M, Y solids'],
  ['blackSolid', 'K solid'],
  ['spots', 'Spot solids'],
  ['overprints', 'Overprints'],
  ['paper', 'Paper'],
  ['greys', 'Greys, ΔCh'],
  ['tone', 'Tone value, %'],
  ['spread', 'Midtone spread, %'],
  ['density', 'Density'],
];

export function typedSettings(settings: RunSettings): TypedSettings {
  const text = <T extends object>(values: T): Record<keyof T, string> =>
    Object.fromEntries(Object.entries(values).map(([key, value]) => [key, String(value)])) as Record<
      keyof T,
      string
    >;
  return {
    ...settings,
    settle: String(settings.settle),
    tolerances: text(settings.tolerances),
    densities: text(settings.densities),
  };
}

/** What was typed as settings; none where something is no number. */
export function settingsOf(typed: TypedSettings, inks: readonly string[]): RunSettings | undefined {
  const settle = Number(typed.settle);
  const tolerances = Object.fromEntries(
    Object.entries(typed.tolerances).map(([key, value]) => [key, numberOf(value)]),
  );
  const told = inks.flatMap((ink) => {
    const value = typed.densities[ink] ?? '';
    return value.trim() === '' ? [] : [[ink, numberOf(value)] as const];
  });
  const numbers = [...Object.values(tolerances), ...told.map(([, value]) => value)];
  if (!Number.isInteger(settle) || settle < 0 || numbers.some((value) => !(value > 0))) return undefined;
  if (typed.guide === 'density' && told.length < inks.length) return undefined;
  return {
    ...typed,
    settle,
    tolerances: tolerances as unknown as RunTolerances,
    densities: Object.fromEntries(told),
  };
}

/** The fields of a run's settings. */
export function RunSettingsFields({
  typed,
  inks,
  aimsInLights,
  onChange,
}: {
  typed: TypedSettings;
  inks: readonly string[];
  /** Whether the aims are known under other lights; undefined for a run that has no sheet yet. */
  aimsInLights?: boolean;
  onChange: (typed: TypedSettings) => void;
}) {
  const set = (change: Partial<TypedSettings>): void => onChange({ ...typed, ...change });
  const select = <T extends string>(
    label: string,
    value: T,
    all: readonly T[],
    change: (next: T) => void,
    { disabled = false, words }: { readonly disabled?: boolean; readonly words?: (each: T) => string } = {},
  ) => (
    <TextField
      select
      label={label}
      value={value}
      disabled={disabled}
      onChange={(event) => change(event.target.value as T)}
    >
      {all.map((each) => (
        <MenuItem key={each} value={each}>
          {words === undefined ? each : words(each)}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <>
      <div className="run-tolerances">
        {select('Guide', typed.guide, GUIDES, (guide) => set({ guide }))}
        {select('Difference', typed.formula, RUN_FORMULAS, (formula) =>
          set({
            formula,
            tolerances: typedSettings({ ...USUAL_SETTINGS, tolerances: USUAL_TOLERANCES[formula] })
              .tolerances,
          }),
        )}
        {select('Density status', typed.status, RUN_STATUSES, (status) => set({ status }))}
        {select('Density from', typed.white, WHITE_BASES, (white) => set({ white }))}
        {select('Mode', typed.mode, ['M0', 'M1', 'M2', 'M3'] as const, (mode) => set({ mode }))}
        {aimsInLights !== undefined &&
          select(
            'Light',
            typed.light,
            STANDARD_LIGHTS.map(({ key }) => key),
            (light) => set({ light }),
            { disabled: !aimsInLights },
          )}
        {aimsInLights !== undefined &&
          select('Observer', typed.observer, OBSERVERS, (observer) => set({ observer }), {
            disabled: !aimsInLights,
            words: observerWords,
          })}
        <TextField
          label="Settles in impressions"
          value={typed.settle}
          onChange={(event) => set({ settle: event.target.value })}
        />
      </div>
      {aimsInLights === false && (
        <p className="quiet small">
          Its aims are colours for {lightWords(USUAL_LIGHT)}. Lock them to an OK sheet that was read with
          spectra, and the run can be judged under another light.
        </p>
      )}
      {typed.guide === 'density' && (
        <div className="run-tolerances">
          {inks.map((ink) => (
            <TextField
              key={ink}
              label={`Density of ${ink}`}
              value={typed.densities[ink] ?? ''}
              helperText={typed.white === 'paper' ? 'over paper' : 'absolute'}
              onChange={(event) => set({ densities: { ...typed.densities, [ink]: event.target.value } })}
            />
          ))}
        </div>
      )}
      <fieldset className="run-tolerances">
        <legend className="quiet small">Tolerances, {typed.formula} where nothing else is said</legend>
        {TOLERANCE_WORDS.map(([key, words]) => (
          <TextField
            key={key}
            label={words}
            value={typed.tolerances[key]}
            onChange={(event) => set({ tolerances: { ...typed.tolerances, [key]: event.target.value } })}
          />
        ))}
      </fieldset>
    </>
  );
}
