import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import type { LinkName } from '@melto/store/results';

export type { LinkName };

/** Links of the chain in their order, by the channels of the device; an RGB driver calibrates itself. */
const LINKS: Readonly<Record<DeviceSpace, readonly LinkName[]>> = {
  rgb: ['profile', 'conformity', 'watch'],
  cmyk: ['limits', 'curves', 'balance', 'profile', 'conformity', 'watch'],
  cmykog: ['limits', 'curves', 'balance'],
};

export function linksOf(space: DeviceSpace): readonly LinkName[] {
  return LINKS[space];
}

/** Links that conditions whose stocks behave alike may share. */
export const LENDABLE: readonly LinkName[] = ['limits', 'curves', 'balance'];

export const LINK_WORDS: Readonly<Record<LinkName, string>> = {
  evenness: 'Evenness',
  limits: 'Limits',
  curves: 'Curves',
  balance: 'Balance',
  profile: 'Profile',
  conformity: 'Conformity',
  watch: 'Watch',
};
