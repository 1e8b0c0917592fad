import type { ListChanges } from '@melto/core/lists/compareLists';

/** Names that are said before the rest is counted. */
const SAID = 4;

const some = (names: readonly string[]): string =>
  names.length > SAID
    ? `${names.slice(0, SAID).join(', ')} and ${names.length - SAID} more`
    : names.join(', ');

/** What a version changed, in sentences. */
export function changeSentences({ added, left, moved }: ListChanges): string[] {
  const sentences = [
    added.length > 0 ? `New in this version: ${some(added)}.` : '',
    left.length > 0 ? `No longer in it: ${some(left)}.` : '',
    moved.length > 0
      ? `Another colour than before: ${some(moved.map(({ name, deltaE }) => `${name} (${deltaE.toFixed(2)} ΔE00)`))}.`
      : '',
  ].filter((sentence) => sentence !== '');
  return sentences.length > 0 ? sentences : ['The same colours as in the version before.'];
}
