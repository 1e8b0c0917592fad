'use client';

import { Button } from '@mui/material';
import { EYE_OPPOSITES, EYE_WORDS } from '@melto/core/eye/eyeWords';
import type { EyeWord } from '@melto/core/eye/eyeWords';

/** One colour, one question, and a large target for each word; what excludes another takes its place. */
export function NoteWords({
  number,
  name,
  words,
  grey,
  onWords,
  onNext,
}: {
  number: number;
  name: string;
  words: readonly EyeWord[];
  /** A grey has no strength to lose. */
  grey: boolean;
  onWords: (words: readonly EyeWord[]) => void;
  /** Done with this colour. */
  onNext: (words: readonly EyeWord[]) => void;
}) {
  const toggle = (word: EyeWord): void =>
    onWords(
      words.includes(word)
        ? words.filter((own) => own !== word)
        : [...words.filter((own) => own !== EYE_OPPOSITES[word]), word],
    );
  const offered = EYE_WORDS.filter((word) => !grey || (word !== 'stronger' && word !== 'duller'));
  return (
    <div className="eye-question">
      <p className="study-ask" role="status">
        <b>{number}</b> {name}: beside its reference, the print is
      </p>
      <div className="eye-words" role="group" aria-label={`The print of ${name} is`}>
        {offered.map((word) => (
          <Button
            key={word}
            variant={words.includes(word) ? 'contained' : 'outlined'}
            aria-pressed={words.includes(word)}
            onClick={() => toggle(word)}
          >
            {word}
          </Button>
        ))}
      </div>
      <div className="row">
        <Button size="large" variant="outlined" onClick={() => onNext([])}>
          The same
        </Button>
        {words.length > 0 && (
          <Button size="large" variant="contained" onClick={() => onNext(words)}>
            Note it: {words.join(', ')}
          </Button>
        )}
      </div>
    </div>
  );
}
