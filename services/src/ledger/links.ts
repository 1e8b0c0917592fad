import { baseInks } from '@melto/core/device/baseInks';
import { profiledProcess } from '@melto/core/characterise/leastPatches';
import { drivenByInks, takesCmyk } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { ChartPurpose } from '@melto/store/charts';
import type { LinkName } from '@melto/store/results';

export type { LinkName };

/** What is known of a link of the chain, whatever results it holds. */
export interface LinkFacts {
  readonly word: string;
  /** Whether a device with these channels has it. */
  readonly suits: (process: Process) => boolean;
  /** The chart that its results are made from; null where results say it themselves. */
  readonly chart: ChartPurpose | null;
  /** Conditions whose stocks behave alike may share it. */
  readonly lendable: boolean;
  /** It has a place in the chain; evenness stands beside it. */
  readonly inChain: boolean;
}

const inks = drivenByInks;
/** The near-neutral scales are of cyan, magenta, yellow and black; other inks stay out of greys. */
const hasGreys = (process: Process): boolean => baseInks(process) !== undefined;

/** The links, in the order of the chain. */
export const LINKS: Readonly<Record<LinkName, LinkFacts>> = {
  evenness: { word: 'Evenness', suits: takesCmyk, chart: 'evenness', lendable: false, inChain: false },
  limits: { word: 'Limits', suits: inks, chart: 'ramps', lendable: true, inChain: true },
  curves: { word: 'Curves', suits: inks, chart: 'ramps', lendable: true, inChain: true },
  balance: { word: 'Balance', suits: hasGreys, chart: 'near-neutral', lendable: true, inChain: true },
  profile: { word: 'Profile', suits: profiledProcess, chart: 'profile', lendable: false, inChain: true },
  conformity: { word: 'Conformity', suits: profiledProcess, chart: null, lendable: false, inChain: true },
  watch: { word: 'Watch', suits: profiledProcess, chart: 'wedge', lendable: false, inChain: true },
};

const NAMES = Object.keys(LINKS) as LinkName[];

/** The chain of a device, in its order. */
export function linksOf(process: Process): readonly LinkName[] {
  return NAMES.filter((link) => LINKS[link].inChain && LINKS[link].suits(process));
}

/** Links that conditions whose stocks behave alike may share. */
export const LENDABLE: readonly LinkName[] = NAMES.filter((link) => LINKS[link].lendable);

export const linkWord = (link: LinkName): string => LINKS[link].word;

/** The link that a reading of a chart serves. */
export function servedLink(purpose: ChartPurpose, kind: string | null): LinkName {
  if (purpose === 'wedge') return kind === 'watch' ? 'watch' : 'conformity';
  if (purpose === 'short-check' || purpose === 'job') return 'conformity';
  if (purpose === 'ramps') return 'curves';
  if (purpose === 'near-neutral') return 'balance';
  return purpose;
}
