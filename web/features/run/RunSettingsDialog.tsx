import { useState } from 'react';
import { lightWords } from '@melto/core/press/runLight';
import type { RunView } from '@melto/services/press/runView';
import { CHANGE_RUN_SETTINGS } from '@/endpoints/runs';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { RunSettingsFields, settingsOf, typedSettings } from './RunSettingsFields';

/** Settings of a run that is under way, with what changing them does. */
export function RunSettingsDialog({ run, onClose }: { run: RunView; onClose: () => void }) {
  const inks = run.units.map(({ ink }) => ink);
  const [typed, setTyped] = useState(typedSettings(run.settings));
  const settings = settingsOf(typed, inks);
  const seen = lightWords(typed) !== lightWords(run.settings);
  const measured = typed.status !== run.settings.status || typed.mode !== run.settings.mode;
  return (
    <FormDialog
      title="Settings of the run"
      act="Change them"
      ready={settings !== undefined}
      problem={
        settings === undefined ? 'A field is no number above nought, or a density is not told.' : undefined
      }
      onSubmit={async () => {
        if (settings === undefined) return;
        await send(CHANGE_RUN_SETTINGS, { params: { id: run.id }, body: settings });
        onClose();
      }}
      onClose={onClose}
    >
      <RunSettingsFields typed={typed} inks={inks} onChange={setTyped} aimsInLights={run.aimsInLights} />
      <p className="quiet small">
        All sheets of the run are judged again by what you set.
        {seen &&
          ` Colour differences are others for ${lightWords(typed)} than for ${lightWords(run.settings)}: they do not compare with those of other runs, or with what was reported before. Tone values, densities, the variation of ISO 12647-2 and the watch stay as they are.`}
        {measured &&
          ' Status and mode hold for what is read from now on: densities and colours of sheets before stay as they were read, and do not compare with those after.'}
      </p>
    </FormDialog>
  );
}
