import type { PatchView, RunView } from '@melto/services/press/runView';
import { StatusShape } from '@/ui/StatusMark';
import { screenOf } from '@/ui/Swatch';

/** The sheet seen from above: its bar in measured colours over the zones; only what is outside carries a shape. */
export function SheetPicture({ run: { bar, patches, strips } }: { run: RunView }) {
  const paper = patches.find(({ kind, lab }) => kind === 'paper' && lab !== null)?.lab;
  const zones = Array.from({ length: bar.zones }, (_, zone) =>
    patches.filter((patch) => patch.zone === zone),
  );
  const read = strips.length > 0;
  return (
    <div
      className="run-sheet"
      style={{ background: paper === undefined || paper === null ? 'var(--surface)' : screenOf(paper).css }}
      role="img"
      aria-label={read ? spoken(patches) : 'No sheet was read yet'}
    >
      {zones.map((own, zone) => (
        <div key={zone} className="run-zone">
          <div className="run-bar">
            {own.map((patch, at) => (
              <Patch key={at} patch={patch} read={read} />
            ))}
          </div>
          <b>{zone + 1}</b>
        </div>
      ))}
    </div>
  );
}

function Patch({ patch, read }: { patch: PatchView; read: boolean }) {
  const { lab, density, outside } = patch;
  const open = read && lab === null && density === null;
  return (
    <span
      className={open ? 'run-patch open' : 'run-patch'}
      style={lab === null ? undefined : { background: screenOf(lab).css }}
      title={patchWords(patch)}
    >
      {outside && (
        <i>
          <StatusShape status="does-not-conform" size={12} />
        </i>
      )}
    </span>
  );
}

/** What a patch is and how it stands. */
export function patchWords({ zone, words, quantity, value, limit, lab, density }: PatchView): string {
  const place = `Zone ${zone + 1}, ${words}`;
  if (quantity === null || value === null || limit === null)
    return lab === null && density === null ? `${place}: not read` : place;
  return `${place}: ${quantity} ${value.toFixed(1)} of ${limit.toFixed(1)}`;
}

function spoken(patches: readonly PatchView[]): string {
  const outside = patches.filter((patch) => patch.outside);
  if (outside.length === 0) return 'The colour bar: all patches that were read are within tolerance';
  return `The colour bar: ${outside.length} ${outside.length === 1 ? 'patch' : 'patches'} outside. ${outside.slice(0, 12).map(patchWords).join('; ')}`;
}
