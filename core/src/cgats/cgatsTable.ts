/** One table of a CGATS.17 (ISO 28178) file as it stands in the file. */
export interface CgatsTable {
  /** First line of the table, for example `CGATS.17`. */
  readonly identifier: string;
  readonly keywords: readonly CgatsKeyword[];
  readonly columns: readonly CgatsColumn[];
  readonly rowCount: number;
}

export interface CgatsKeyword {
  readonly name: string;
  readonly value: string;
}

export type CgatsColumn =
  | { readonly name: string; readonly kind: 'text'; readonly values: readonly string[] }
  | { readonly name: string; readonly kind: 'number'; readonly values: Float64Array };

/** Value of the first keyword of that name, letters' case ignored. */
export function keywordValue(table: CgatsTable, name: string): string | undefined {
  const wanted = name.toUpperCase();
  return table.keywords.find((keyword) => keyword.name.toUpperCase() === wanted)?.value;
}

export function numberColumn(table: CgatsTable, name: string): Float64Array | undefined {
  const wanted = name.toUpperCase();
  const column = table.columns.find((c) => c.kind === 'number' && c.name.toUpperCase() === wanted);
  return column?.kind === 'number' ? column.values : undefined;
}

export function textColumn(table: CgatsTable, ...names: string[]): readonly string[] | undefined {
  const wanted = names.map((name) => name.toUpperCase());
  const column = table.columns.find((c) => wanted.includes(c.name.toUpperCase()));
  if (column === undefined) return undefined;
  return column.kind === 'text' ? column.values : Array.from(column.values, String);
}
