/** Prints rows of words and numbers as an aligned table. */
export function printTable(
  title: string,
  head: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): void {
  const cells = [
    head,
    ...rows.map((row) => row.map((value) => (typeof value === 'number' ? value.toFixed(2) : value))),
  ];
  const widths = head.map((_, i) => Math.max(...cells.map((row) => row[i].length)));
  console.log(`\n${title}`);
  for (const row of cells)
    console.log(
      row.map((cell, i) => (i === 0 ? cell.padEnd(widths[i]) : cell.padStart(widths[i]))).join('  '),
    );
}
