'use client';

import { Checkbox, FormControl, FormControlLabel, FormLabel, Radio, RadioGroup } from '@mui/material';
import type { Static } from '@sinclair/typebox';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ReactNode } from 'react';
import type { ImportedMode, ImportPreview } from '@melto/services/reading/importReading';
import type { Question } from '@melto/core/measured/measurement';
import { IMPORT_READING, PREVIEW_READING } from '@/endpoints/reading';
import type { JudgedImport } from '@/endpoints/reading';
import { problemWords, send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { ImportedSheet } from './ImportedSheet';

/** What was said to the questions of a file, as the address has it. */
type Answers = Static<typeof PREVIEW_READING.query>;

const MODES: Readonly<Record<string, string>> = {
  M0: 'M0, lamp not specified',
  M1: 'M1, daylight with its UV',
  M2: 'M2, without UV',
  M3: 'M3, polarised',
};

/** As the server takes. */
const MOST_BYTES = 32_000_000;

/** A file of measurements in place of reading a sheet. */
export function ImportDialog({
  code,
  file,
  onTaken,
  onClose,
}: {
  code: string;
  file: File;
  onTaken: (taken: JudgedImport) => void;
  onClose: () => void;
}) {
  const params = { code };
  return (
    <MeasuredFileDialog
      file={file}
      preview={(query) => send(PREVIEW_READING, { params, query, body: file })}
      onTake={async (query) => onTaken(await send(IMPORT_READING, { params, query, body: file }))}
      onClose={onClose}
    />
  );
}

/** Shows what a file of measurements would become, asks what it leaves open, and takes it when told to. */
export function MeasuredFileDialog({
  file,
  preview,
  ready = true,
  onTake,
  onClose,
  children,
}: {
  file: File;
  preview: (answers: Answers) => Promise<ImportPreview>;
  /** Nothing else is left to be said. */
  ready?: boolean;
  onTake: (answers: Answers) => Promise<void>;
  onClose: () => void;
  /** What is asked besides. */
  children?: ReactNode;
}) {
  const [answers, setAnswers] = useState<Answers>({});
  const say = (answer: Partial<Answers>): void => setAnswers((before) => ({ ...before, ...answer }));
  const { data, error } = useQuery({
    queryKey: ['import', file.name, file.size, file.lastModified, answers],
    queryFn: () => preview(answers),
    // The same file may be given at another sheet.
    gcTime: 0,
    enabled: file.size <= MOST_BYTES,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const refused =
    file.size > MOST_BYTES
      ? 'The file is larger than 32 MB. Give the measurements of this chart alone.'
      : error === null
        ? undefined
        : problemWords(error);
  // What was asked once stays on the screen with its answer.
  const [questions, setQuestions] = useState<readonly Question[]>([]);
  const fresh = data?.questions.filter((own) => questions.every(({ asks }) => asks !== own.asks)) ?? [];
  if (fresh.length > 0) setQuestions([...questions, ...fresh]);
  const open = data?.questions.length ?? 0;
  const readings = data?.modes.length ?? 0;
  return (
    <FormDialog
      title={`A reading from ${file.name}`}
      act={readings > 1 ? `Take ${readings} readings` : 'Take the reading'}
      ready={ready && data !== undefined && refused === undefined && open === 0}
      problem={refused}
      onSubmit={() => onTake(answers)}
      onClose={onClose}
    >
      {data === undefined && refused === undefined && <p className="quiet">Reading the file…</p>}
      {data !== undefined && refused === undefined && <Found preview={data} />}
      {questions.map((question) => (
        <Asked key={question.asks} question={question} answers={answers} onAnswer={say} />
      ))}
      {data?.spectral === true && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={answers.bandpass !== undefined}
              onChange={(_, on) => say({ bandpass: on ? 'take out' : undefined })}
            />
          }
          label="Its spectra still hold the instrument’s bandpass: take it out"
        />
      )}
      {children}
    </FormDialog>
  );
}

function Found({ preview }: { preview: ImportPreview }) {
  const { code, modes, unused, damaged, notes } = preview;
  const [first] = modes;
  return (
    <>
      {first !== undefined && <ImportedSheet pages={first.pages} code={code} />}
      <ul className="plain-list small">
        {modes.map((mode, i) => (
          <Matched key={mode.mode ?? i} mode={mode} />
        ))}
        {damaged.length > 0 && (
          <li>
            <b>Left out:</b> {counted(damaged.length, 'row')}, line {damaged[0]?.line}: {damaged[0]?.why}
            {damaged.length > 1 ? ' …' : ''}
          </li>
        )}
        {unused.length > 0 && (
          <li>
            <b>Not used:</b> {unused.slice(0, 20).join(', ')}
            {unused.length > 20 ? ` and ${unused.length - 20} more` : ''}
          </li>
        )}
        {notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
    </>
  );
}

function Matched({ mode }: { mode: ImportedMode }) {
  const { patches, ofPatches, strips, ofStrips, repeated, foreign, doubtful } = mode;
  return (
    <>
      <li>
        {mode.mode !== null && <b>{mode.mode}: </b>}
        {patches === ofPatches
          ? `${mode.mode === null ? 'All' : 'all'} ${ofPatches} patches`
          : `${patches} of ${ofPatches} patches`}
        , matched by {mode.by}
        {repeated > 0 && `; ${counted(repeated, 'patch', 'patches')} averaged over several rows`}.
      </li>
      {strips < ofStrips && (
        <li>
          {strips} of {ofStrips} strips are whole; patches that are missing stay open.
        </li>
      )}
      {foreign > 0 && <li>{counted(foreign, 'row')} of the file belong to no patch of this chart.</li>}
      {doubtful.length > 0 && (
        <li>
          <b>Doubtful:</b>{' '}
          {doubtful
            .slice(0, 5)
            .map(({ id, off }) => `patch ${id} (${off.toFixed(0)} ΔE*ab)`)
            .join(', ')}
          {doubtful.length > 5 ? ` and ${doubtful.length - 5} more` : ''} do not go with patches like them.
        </li>
      )}
    </>
  );
}

function Asked({
  question,
  answers,
  onAnswer,
}: {
  question: Question;
  answers: Answers;
  onAnswer: (answer: Partial<Answers>) => void;
}): ReactNode {
  if (question.asks === 'light')
    return (
      <FormControl>
        <FormLabel>The file does not tell what light its colours are for.</FormLabel>
        <FormControlLabel
          control={
            <Checkbox
              checked={answers.light !== undefined}
              onChange={(_, on) => onAnswer({ light: on ? 'D50 2°' : undefined })}
            />
          }
          label="They are for D50 and the 2° observer"
        />
      </FormControl>
    );
  const choices: readonly (readonly [string, string])[] =
    question.asks === 'mode'
      ? question.options.map((mode) => [mode, MODES[mode] ?? mode])
      : question.asks === 'scale'
        ? question.options.map((scale) => [String(scale), `0 to ${scale}`])
        : question.options.map((name) => [name, name]);
  const asks = {
    mode: 'The file does not tell its measurement mode. It was measured in',
    scale: `The ${question.asks === 'scale' ? question.process : ''} values of the file count from`,
    table: 'The file holds several tables. Take',
  }[question.asks];
  return (
    <FormControl>
      <FormLabel id={`asks-${question.asks}`}>{asks}</FormLabel>
      <RadioGroup
        row={question.asks !== 'table'}
        aria-labelledby={`asks-${question.asks}`}
        value={answers[question.asks] ?? ''}
        onChange={(_, value) => onAnswer({ [question.asks]: value })}
      >
        {choices.map(([value, words]) => (
          <FormControlLabel key={value} value={value} control={<Radio size="small" />} label={words} />
        ))}
      </RadioGroup>
    </FormControl>
  );
}

const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;
