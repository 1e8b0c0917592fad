import { readPatchFile, report, writePatchFile } from './files.ts';

export function convert(input: string, output: string, options: { readonly json?: boolean }): void {
  const set = readPatchFile(input);
  writePatchFile(output, set);
  report(options.json, { patches: set.ids.length, notes: set.notes, out: output }, [
    ...set.notes,
    `${set.ids.length} patches: ${output}`,
  ]);
}
