/** Patches by a figure, the largest first as they are given; a press leads to the patch. */
export function PatchRanking({
  patches,
  onPick,
}: {
  patches: readonly { readonly row: number; readonly words?: string; readonly value: number }[];
  onPick: (row: number) => void;
}) {
  return (
    <ol style={{ marginTop: 8 }}>
      {patches.map(({ row, words, value }) => (
        <li key={row} className="row small" style={{ justifyContent: 'space-between' }}>
          <button type="button" className="plain" onClick={() => onPick(row)}>
            patch {row + 1}
          </button>
          {words !== undefined && <span className="quiet">{words}</span>}
          <b>{value.toFixed(2)}</b>
        </li>
      ))}
    </ol>
  );
}
