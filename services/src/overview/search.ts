import { modeName } from '@melto/core/device/modeName';
import { listDevices, listStocks } from '@melto/store/devices';
import { listAimSets } from '@melto/store/aimSets';
import { searchColourLists } from '@melto/store/colourLists';
import { holding } from '@melto/store/page';
import { searchConditions } from '@melto/store/conditions';
import { searchSheets } from '@melto/store/prints';
import { searchReadings } from '@melto/store/readings';
import { searchProfiles } from '@melto/store/results';
import { listToleranceSets } from '@melto/store/toleranceSets';
import type { Context } from '../kernel/context.ts';

export interface Found {
  readonly kind:
    | 'device'
    | 'stock'
    | 'condition'
    | 'sheet'
    | 'chart'
    | 'profile'
    | 'reading'
    | 'aim set'
    | 'colour list'
    | 'tolerance set';
  readonly title: string;
  readonly detail: string;
  readonly href: string;
}

const MOST_WORDS = 6;
const MOST_CONDITIONS = 12;
const MOST_OTHERS = 8;
const MOST_NAMES = 3;

/** Conditions, sheets, readings, profiles, colour lists, sets, devices and stocks whose names hold all the words. */
export async function search({ database }: Context, text: string): Promise<Found[]> {
  const words = text
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '')
    .slice(0, MOST_WORDS);
  const [first] = words;
  const conditions = (await searchConditions(database, words.map(holding), MOST_CONDITIONS)).map(
    (row): Found => ({
      kind: 'condition',
      title: row.stock,
      detail: `${row.device} · ${modeName(row)}`,
      href: `/conditions/${row.id}`,
    }),
  );
  if (first === undefined) return conditions;
  const like = holding(first);
  const [sheets, readings, profiles, lists, aims, tolerances, devices, stocks] = await Promise.all([
    searchSheets(database, first, MOST_OTHERS),
    searchReadings(database, first, MOST_OTHERS),
    searchProfiles(database, like, MOST_OTHERS),
    searchColourLists(database, like, MOST_OTHERS),
    listAimSets(database),
    listToleranceSets(database),
    listDevices(database),
    listStocks(database),
  ]);
  const named = <T extends { readonly name: string }>(list: readonly T[]): T[] =>
    list.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word))).slice(0, MOST_OTHERS);
  return [
    ...conditions,
    ...sheets.map(({ code, title }): Found => ({
      kind: 'sheet',
      title: code,
      detail: title,
      href: `/read/${code}`,
    })),
    ...readings.map(({ id, code, title }): Found => ({
      kind: 'reading',
      title: `Reading of ${code}`,
      detail: title,
      href: `/readings/${id}`,
    })),
    ...profiles.map(({ id, conditionId, version, name }): Found => ({
      kind: 'profile',
      title: name,
      detail: `profile v${version}`,
      href: `/conditions/${conditionId}/profile?version=${id}`,
    })),
    ...lists.map(({ id, name, count, names }): Found => ({
      kind: 'colour list',
      title: name,
      detail: namesOf(names, first) ?? `${count} ${count === 1 ? 'colour' : 'colours'}`,
      href: `/library/lists?set=${id}`,
    })),
    ...named(aims).map(({ id, name, patches }): Found => ({
      kind: 'aim set',
      title: name,
      detail: `aims, ${patches} patches`,
      href: `/library/aims?set=${id}`,
    })),
    ...named(tolerances).map(({ id, name }): Found => ({
      kind: 'tolerance set',
      title: name,
      detail: 'tolerances',
      href: `/library/tolerances?set=${id}`,
    })),
    ...named(devices).map(({ name, kind }): Found => ({
      ...{ kind: 'device', title: name, detail: kind, href: '/library/devices' },
    })),
    ...named(stocks).map(({ name, finish }): Found => ({
      ...{ kind: 'stock', title: name, detail: `stock, ${finish}`, href: '/library/stocks' },
    })),
  ];
}

/** Colours of a list that hold a word, a few of them; undefined where none does. */
function namesOf(names: string, word: string): string | undefined {
  const found = names.split('\n').filter((name) => name.toLowerCase().includes(word));
  if (found.length === 0) return undefined;
  const more = found.length - MOST_NAMES;
  return found.slice(0, MOST_NAMES).join(', ') + (more > 0 ? ` and ${more} more` : '');
}
