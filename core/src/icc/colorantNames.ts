import type { IccProfile } from './iccTypes.ts';

/** Names of the inks of a profile in the order of its channels, by its colorant table; undefined where that tells others or is missing. */
export function colorantNames({ tags }: IccProfile, channels: number): readonly string[] | undefined {
  const table = tags.get('clrt');
  return table?.type === 'clrt' && table.colorants.length === channels
    ? table.colorants.map(({ name }) => name.trim())
    : undefined;
}
