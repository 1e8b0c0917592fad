/** A table of an output profile. */
export interface ProfileTable {
  readonly signature: string;
  /** Place among the intents: perceptual, relative colorimetric, saturation. */
  readonly intent: number;
  readonly way: 'from device' | 'to device' | 'to another';
  readonly label: string;
}

/** As inspections call device links. */
export const LINK = 'device link';
const INTENTS = ['perceptual', 'relative colorimetric', 'saturation'];

/**
 * The tables that a profile has, relative colorimetric first.
 * @param kind of the profile: a device link has one table, to another device.
 */
export function tablesOf(
  tags: readonly { readonly signature: string }[],
  kind: string,
): readonly ProfileTable[] {
  if (kind === LINK)
    return [{ signature: 'A2B0', intent: 0, way: 'to another', label: 'device to another device' }];
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
