/** A table of an output profile. */
export interface ProfileTable {
  readonly signature: string;
  /** Place among the intents: perceptual, relative colorimetric, saturation. */
  readonly intent: number;
  readonly way: 'from device' | 'to device';
  readonly label: string;
}

const INTENTS = ['perceptual', 'relative colorimetric', 'saturation'];

/** The tables that a profile has, relative colorimetric first. */
export function tablesOf(tags: readonly { readonly signature: string }[]): readonly ProfileTable[] {
  const has = new Set(tags.map(({ signature }) => signature));
  return [1, 0, 2].flatMap((intent) =>
    (['from device', 'to device'] as const)
      .map((way) => ({
        ...{ signature: `${way === 'from device' ? 'A2B' : 'B2A'}${intent}`, intent, way },
        label: `${INTENTS[intent]}, ${way === 'from device' ? 'device to Lab' : 'Lab to device'}`,
      }))
      .filter(({ signature }) => has.has(signature)),
  );
}
