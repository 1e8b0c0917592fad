import type { StaleHead } from '@melto/store/results';
import { linkWord } from './links.ts';
import type { LinkName } from './links.ts';

/** Why a link is stale, and where the shortest way back begins. */
export interface StaleSentence {
  readonly words: string;
  readonly act: { readonly words: string; readonly href: string } | { readonly borrow: number } | null;
}

export function staleSentence({
  why,
  link,
  causeLink,
  causeConditionId,
  conditionId,
}: StaleHead): StaleSentence {
  const at = `/conditions/${conditionId}`;
  const readings = { words: 'See the readings', href: `${at}/sheets` };
  switch (why) {
    case 'withdrawn':
      return { words: sentenceOf(link, causeLink, 'its reading was withdrawn'), act: readings };
    case 'read again':
      return {
        words: sentenceOf(link, causeLink, 'a strip of its reading was read again since'),
        act: readings,
      };
    case 'lent':
      return {
        words: `It is borrowed, and the condition that lends it has newer ${linkWord(causeLink)}.`,
        act: { borrow: causeConditionId },
      };
    case 'source':
      return {
        words: `It was made from a version of ${linkWord(causeLink)} that is not in force any more.`,
        act:
          link === 'balance'
            ? { words: 'Print the near-neutral chart', href: `${at}/balance` }
            : link === 'curves'
              ? { words: 'Make the curves again', href: `${at}/curves` }
              : { words: `Go to ${linkWord(causeLink)}`, href: `${at}/${causeLink}` },
      };
  }
}

function sentenceOf(link: string, causeLink: LinkName, what: string): string {
  return link === causeLink
    ? `${what[0].toUpperCase()}${what.slice(1)}.`
    : `${linkWord(causeLink)}, which it was made from, changed: ${what}.`;
}
