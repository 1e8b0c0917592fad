import { paperMm } from '@melto/core/charts/pageGeometry';
import { formatLength, lengthUnit } from '@/ui/units';
import type { NamedPaper, PaperName } from '@melto/core/charts/pageGeometry';

export const PAPER_WORDS: Readonly<Record<NamedPaper, string>> = { a4: 'A4', letter: 'Letter', a3: 'A3' };

/** A page as it is called: by its name, or by its sides. */
export function paperWords(paper: PaperName): string {
  if (Object.hasOwn(PAPER_WORDS, paper)) return PAPER_WORDS[paper as NamedPaper];
  const { width, height } = paperMm(paper);
  return `${formatLength(width)} × ${formatLength(height)} ${lengthUnit()}`;
}
