import type { IccProfile } from './iccTypes.ts';

/** Text of a description, copyright or other text tag, in English where there are several; undefined where there is none. */
export function profileText({ tags }: IccProfile, signature: string): string | undefined {
  const tag = tags.get(signature);
  if (tag?.type === 'text' || tag?.type === 'desc') return tag.text;
  if (tag?.type !== 'mluc') return undefined;
  return (tag.records.find(({ language }) => language === 'en') ?? tag.records[0])?.text;
}
