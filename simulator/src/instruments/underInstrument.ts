import type { StripPatches } from '@melto/core/device/instrument';

/** What lies under a simulated instrument, and what it knows of itself. */
export interface UnderInstrument {
  readonly printState: string;
  readonly patches: StripPatches;
  /** The strip that a hand takes by mistake. */
  readonly otherPatches?: StripPatches;
  /** Domain time of its last reading of the white tile, if any. */
  readonly tileMs?: number;
  /** From when on it reads otherwise than it was certified. */
  readonly biasFromMs?: number;
}

interface Stored extends Omit<UnderInstrument, 'patches' | 'otherPatches'> {
  readonly version: 1;
  readonly patches: StoredPatches;
  readonly otherPatches?: StoredPatches;
}
type StoredPatches = Omit<StripPatches, 'device'> & { readonly device: readonly number[] };

const stored = (patches: StripPatches): StoredPatches => ({ ...patches, device: [...patches.device] });
const taken = (patches: StoredPatches): StripPatches => ({
  ...patches,
  device: Float64Array.from(patches.device),
});

/** As text that goes by way of the desk and the bridge, opaque to both. */
export function encodeUnder({ patches, otherPatches, ...rest }: UnderInstrument): string {
  return JSON.stringify({
    ...{ version: 1, ...rest, patches: stored(patches) },
    ...(otherPatches === undefined ? {} : { otherPatches: stored(otherPatches) }),
  } satisfies Stored);
}

/** @throws RangeError where the text was not made by `encodeUnder`. */
export function decodeUnder(text: string): UnderInstrument {
  let state: Partial<Stored> | null;
  try {
    state = JSON.parse(text) as Partial<Stored> | null;
  } catch {
    throw new RangeError('what lies under the instrument is not of this simulator');
  }
  if (state?.version !== 1 || typeof state.printState !== 'string' || !Array.isArray(state.patches?.device))
    throw new RangeError('what lies under the instrument is not of this simulator');
  const { version, patches, otherPatches, ...rest } = state as Stored;
  void version;
  return {
    ...rest,
    patches: taken(patches),
    otherPatches: otherPatches === undefined ? undefined : taken(otherPatches),
  };
}
