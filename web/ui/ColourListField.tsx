'use client';

import { COLOUR_LIST, READ_COLOURS } from '@/endpoints/lists';
import { Button } from '@mui/material';
import { useRef, useState } from 'react';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { ask, problemWords, send } from './api';
import { ListField } from './ListField';
import { Swatch } from './Swatch';

const MOST_SHOWN = 24;

/** Takes the colours of a dropped or chosen list, and shows them. */
export function ColourListField({
  name,
  colours,
  onColours,
  onProblem,
  spectra = false,
}: {
  name: string;
  colours: readonly ListedColour[];
  /** Whether spectra are wanted with the colours of a kept list; most that takes colours takes none. */
  spectra?: boolean;
  onColours: (colours: readonly ListedColour[]) => void;
  /** Undefined when a new file is being read. */
  onProblem: (words: string | undefined) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [kept, setKept] = useState<number>();
  const put = async (read: Promise<readonly ListedColour[]>): Promise<void> => {
    onProblem(undefined);
    try {
      onColours(await read);
    } catch (error) {
      onProblem(problemWords(error));
    }
  };
  const take = (file: File): Promise<void> => {
    setKept(undefined);
    return put(send(READ_COLOURS, { body: file }).then((list) => list.colours));
  };
  const takeKept = (id: number): Promise<void> => {
    setKept(id);
    return put(
      ask(COLOUR_LIST, { params: { id } }).then((list) =>
        list.colours.map((colour) => (spectra ? colour : { name: colour.name, lab: colour.lab })),
      ),
    );
  };
  return (
    <>
      <div
        className="row"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          const [file] = event.dataTransfer.files;
          if (file !== undefined) void take(file);
        }}
      >
        <Button variant="outlined" onClick={() => input.current?.click()}>
          {name}
        </Button>
        <span className="quiet grow">
          {colours.length === 0
            ? 'CxF, CGATS, or CSV with name, L, a, b'
            : `${colours.length} ${colours.length === 1 ? 'colour' : 'colours'}`}
        </span>
        <ListField value={kept} onChoose={(id) => void takeKept(id)} />
        {colours.length > 0 && (
          <Button
            size="small"
            onClick={() => {
              setKept(undefined);
              onColours([]);
            }}
          >
            Take out
          </Button>
        )}
        <input
          ref={input}
          type="file"
          aria-label={`${name.toLowerCase()} file`}
          hidden
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file !== undefined) void take(file);
          }}
        />
      </div>
      {colours.length > 0 && (
        <SwatchRow colours={colours.map((each) => ({ label: each.name, lab: each.lab }))} />
      )}
    </>
  );
}

/** Small swatches with their names. */
export function SwatchRow({
  colours,
}: {
  colours: readonly { readonly label: string; readonly lab: readonly number[] }[];
}) {
  return (
    <div className="swatch-row">
      {colours.slice(0, MOST_SHOWN).map(({ label, lab }, i) => (
        <div key={i} title={label}>
          <Swatch measured={lab} height={22} label={label} />
          <span className="small quiet">{label}</span>
        </div>
      ))}
      {colours.length > MOST_SHOWN && (
        <span className="quiet small">and {colours.length - MOST_SHOWN} more</span>
      )}
    </div>
  );
}
