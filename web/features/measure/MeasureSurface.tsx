'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { labToLch } from '@melto/core/colour/labToLch';
import { typedColours } from '@melto/core/measured/typedColour';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { issueText } from '@melto/core/result';
import { ConnectBridge } from '@/features/bridge/ConnectBridge';
import { AIM_COLOURS } from '@/endpoints/conformity';
import { KEEP_COLOURS } from '@/endpoints/lists';
import { ask, newKey, problemWords } from '@/ui/api';
import { ColourListField } from '@/ui/ColourListField';
import { May } from '@/ui/May';
import { save } from '@/ui/save';
import { formatFigure } from '@/ui/format';
import { LabCells, LabHeads } from '@/ui/LabCells';
import { Swatch } from '@/ui/Swatch';
import { useUndo } from '@/ui/useUndo';
import { comparison } from './comparison';
import type { Compared } from './comparison';
import { InstrumentSpot } from './InstrumentSpot';
import { KeepColours } from './KeepColours';
import { measuredCsv } from './measuredCsv';
import { PairInLights } from './PairInLights';
import { useMeasured } from './useMeasured';
import type { MeasuredColour } from './useMeasured';

const aimsKey = (id: number): string => `aims ${id}`;

/** Single colours into a list: measured, typed or sent; compared with one of them, a colour list or an aim set. */
export function MeasureSurface({
  aimSets,
}: {
  aimSets: readonly { readonly id: number; readonly name: string; readonly version: number }[];
}) {
  const { colours, add, rename, put } = useMeasured();
  const [reference, setReference] = useState('');
  const [list, setList] = useState<readonly ListedColour[]>([]);
  const [listProblem, setListProblem] = useState<string>();
  const [keeping, setKeeping] = useState(false);
  const offerUndo = useUndo();
  const last = colours.at(-1);
  const aimSet = aimSets.find(({ id }) => reference === aimsKey(id));
  const { data: aims, error: aimsError } = useQuery({
    queryKey: ['aim colours', aimSet?.id],
    queryFn: () => ask(AIM_COLOURS, { params: { id: aimSet?.id ?? 0 } }),
    enabled: aimSet !== undefined,
  });
  const compared = comparison(
    colours,
    reference,
    aimSet !== undefined ? (aims?.colours ?? []) : reference === 'list' ? list : undefined,
  );
  const empty = (): void => {
    const before = colours;
    put([]);
    offerUndo(`${before.length} colours are taken out.`, () => put(before));
  };
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Measure a colour</h1>
        <p className="quiet">D50, 2°. The list is this browser’s own, until you take it out.</p>
        <ConnectBridge />
      </div>
      <div className="panel two" style={{ gap: 16, gridTemplateColumns: '280px 1fr' }}>
        <Latest colour={last} compared={last === undefined ? undefined : compared(last)} />
        <div style={{ display: 'grid', gap: 12, alignContent: 'start' }}>
          <InstrumentSpot onMeasured={(one) => add([one])} next={`Colour ${colours.length + 1}`} />
          <TypedField onColours={add} count={colours.length} />
        </div>
      </div>
      <div className="panel" style={{ display: 'grid', gap: 12 }}>
        <div className="row">
          <h2 className="grow">Colours</h2>
          <TextField
            select
            label="Compare with"
            value={reference}
            onChange={(event) => setReference(event.target.value)}
            sx={{ width: 320 }}
          >
            <MenuItem value="">nothing</MenuItem>
            <MenuItem value="list" disabled={list.length === 0}>
              the nearest of the colour list
            </MenuItem>
            {aimSets.map(({ id, name, version }) => (
              <MenuItem key={aimsKey(id)} value={aimsKey(id)}>
                the nearest of {name} v{version}
              </MenuItem>
            ))}
            {colours.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <May act={KEEP_COLOURS}>
            <Button disabled={colours.length === 0} onClick={() => setKeeping(true)}>
              Keep as a list
            </Button>
          </May>
          <Button
            disabled={colours.length === 0}
            onClick={() => save('measured.csv', measuredCsv(colours, compared))}
          >
            CSV
          </Button>
          <Button disabled={colours.length === 0} onClick={empty}>
            Take all out
          </Button>
        </div>
        {aimSet !== undefined && aims !== undefined && (
          <p className="quiet small">
            Compared with paper, solids and overprints of {aimSet.name}, measured in{' '}
            {aims.conditions.mode ?? 'a mode that it does not tell'}.
          </p>
        )}
        {aimsError !== null && (
          <p className="error" role="alert">
            {problemWords(aimsError)}
          </p>
        )}
        <ColourListField
          name="Colour list"
          spectra
          colours={list}
          onColours={(next) => {
            setList(next);
            setReference(next.length > 0 ? 'list' : '');
          }}
          onProblem={setListProblem}
        />
        {listProblem !== undefined && (
          <p className="error" role="alert">
            {listProblem}
          </p>
        )}
        {colours.length > 0 && (
          <ColourTable
            colours={colours}
            compared={compared}
            onRename={rename}
            onRemove={(id) => put(colours.filter((one) => one.id !== id))}
          />
        )}
        {keeping && <KeepColours colours={colours} onClose={() => setKeeping(false)} />}
      </div>
    </section>
  );
}

/** The colour that came last, large enough to be read from the instrument. */
function Latest({
  colour,
  compared,
}: {
  colour: MeasuredColour | undefined;
  compared: Compared | undefined;
}) {
  if (colour === undefined)
    return <p className="quiet">Nothing yet. Measure one, or type its L*, a* and b*.</p>;
  const { lab, name, density, from } = colour;
  const [, chroma, hue] = labToLch(lab);
  return (
    <div style={{ display: 'grid', gap: 8 }} aria-live="polite">
      <Swatch measured={lab} aim={compared?.aim} height={110} label={name} />
      <b>{name}</b>
      <span style={{ fontSize: 22 }} className="mono">
        {lab.map((value) => formatFigure(value, 2)).join('  ')}
      </span>
      <span className="quiet small">
        C* {chroma.toFixed(2)}, h {hue.toFixed(1)}°, {from}
      </span>
      {compared?.deltaE !== undefined && (
        <span>
          <b>{compared.deltaE.toFixed(2)}</b> ΔE00 from {compared.to}
        </span>
      )}
      {colour.spectrum !== undefined && compared?.spectrum !== undefined && (
        <PairInLights one={colour.spectrum} other={compared.spectrum} />
      )}
      {density !== null && (
        <span className="small">
          Density, status {density.status ?? 'E'}: r {density.red.toFixed(2)} g {density.green.toFixed(2)} b{' '}
          {density.blue.toFixed(2)} v {density.visual.toFixed(2)}
        </span>
      )}
    </div>
  );
}

/** Lines of L*, a*, b*, typed, pasted, or sent by an instrument that acts as a keyboard. */
function TypedField({
  onColours,
  count,
}: {
  onColours: (colours: readonly MeasuredColour[]) => void;
  count: number;
}) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string>();
  const take = (): void => {
    const { colours, issues } = typedColours(text);
    if (issues.length > 0) return setProblem(issues.map(issueText).join('; '));
    setProblem(undefined);
    setText('');
    onColours(
      colours.map(({ name, lab }, i) => ({
        ...{ id: newKey(), lab, from: 'typed', density: null },
        name: name === '' ? `Colour ${count + i + 1}` : name,
      })),
    );
  };
  return (
    <form
      className="row"
      style={{ alignItems: 'flex-start' }}
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <TextField
        label="L* a* b*, typed, pasted or sent by an instrument"
        value={text}
        multiline
        maxRows={6}
        error={problem !== undefined}
        helperText={problem ?? 'A name before them is kept; Enter takes them'}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || event.shiftKey) return;
          event.preventDefault();
          take();
        }}
        sx={{ flex: 1 }}
      />
      <Button type="submit" variant="outlined" disabled={text.trim() === ''}>
        Add
      </Button>
    </form>
  );
}

function ColourTable({
  colours,
  compared,
  onRename,
  onRemove,
}: {
  colours: readonly MeasuredColour[];
  compared: (one: MeasuredColour) => Compared;
  onRename: (id: string, name: string) => void;
  onRemove: (id: string) => void;
}) {
  return (
    <table className="table tight">
      <thead>
        <tr>
          <th style={{ width: 72 }}>Colour</th>
          <th>Name</th>
          <LabHeads />
          <th>Compared with</th>
          <th className="num">ΔE00</th>
          <th>From</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {[...colours].reverse().map((one) => {
          const { id, name, lab, from } = one;
          const { to, aim, deltaE } = compared(one);
          return (
            <tr key={id}>
              <td>
                <Swatch measured={lab} aim={aim} height={24} label={name} />
              </td>
              <td>
                <input
                  style={{ border: 0, background: 'none', font: 'inherit', color: 'inherit', width: '100%' }}
                  aria-label={`Name of ${name}`}
                  value={name}
                  maxLength={80}
                  onChange={(event) => onRename(id, event.target.value)}
                />
              </td>
              <LabCells lab={lab} />
              <td>{to}</td>
              <td className="num">{deltaE === undefined ? '' : deltaE.toFixed(2)}</td>
              <td className="quiet">{from}</td>
              <td className="num">
                <Button
                  size="small"
                  variant="text"
                  aria-label={`Take out ${name}`}
                  onClick={() => onRemove(id)}
                >
                  Take out
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
