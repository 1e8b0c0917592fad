import { createAimSetFromFile } from '@melto/services/conformity/newAimSet';
import { AIM_SET_FROM_FILE } from '@/endpoints/conformity';
import { changing } from '@/server/route';

export const POST = changing(
  AIM_SET_FROM_FILE,
  ({ context, query: { name, versionOf, file = 'file' }, body }) =>
    createAimSetFromFile(context, { name: name.trim(), versionOf }, file.slice(0, 120), body),
);
