import { listAimSets } from '@melto/store/aimSets';
import { listConditions } from '@melto/store/conditions';
import { listToleranceSets } from '@melto/store/toleranceSets';
import type { Services } from '../kernel/context.ts';

export interface Found {
  readonly kind: 'condition' | 'sheet' | 'chart' | 'profile' | 'reading' | 'aim set' | 'tolerance set';
  readonly title: string;
  readonly detail: string;
  readonly href: string;
}

const MOST = 12;

/** Conditions, sheets, charts, readings, profiles, aim sets and tolerance sets whose names hold all the words. */
export async function search(services: Services, text: string): Promise<Found[]> {
  const words = text
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '')
    .slice(0, 6);
  const holds = (...parts: string[]): boolean =>
    words.every((word) => parts.join(' ').toLowerCase().includes(word));
  const conditions = (await listConditions(services.database)).filter((c) =>
    holds(c.device, c.stock, c.mode),
  );
  const found: Found[] = conditions.slice(0, MOST).map((c) => ({
    kind: 'condition',
    title: c.stock,
    detail: `${c.device} · ${c.mode}`,
    href: `/conditions/${c.id}`,
  }));
  if (words.length === 0) return found;
  const like = `%${words[0].replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
  const sheets = await services.database.rows<{ code: string; title: string; onRack: number }>(
    'SELECT s.code, c.title, s.on_rack AS onRack FROM sheet s JOIN print p ON p.id = s.print_id JOIN chart c ON c.id = p.chart_id WHERE s.code LIKE ? ORDER BY s.id DESC LIMIT 8',
    [like],
  );
  for (const sheet of sheets)
    found.push({ kind: 'sheet', title: sheet.code, detail: sheet.title, href: `/read/${sheet.code}` });
  const readings = await services.database.rows<{ id: number; code: string; title: string }>(
    'SELECT r.id, p.code, c.title FROM reading r JOIN print p ON p.id = r.print_id JOIN chart c ON c.id = p.chart_id WHERE p.code LIKE ? ORDER BY r.id DESC LIMIT 8',
    [like],
  );
  for (const reading of readings)
    found.push({
      kind: 'reading',
      title: `Reading of ${reading.code}`,
      detail: reading.title,
      href: `/readings/${reading.id}`,
    });
  const profiles = await services.database.rows<{
    id: number;
    conditionId: number;
    version: number;
    name: string;
  }>(
    "SELECT id, condition_id AS conditionId, version, JSON_VALUE(summary, '$.name') AS name FROM result WHERE link = 'profile' AND JSON_VALUE(summary, '$.name') LIKE ? ORDER BY id DESC LIMIT 8",
    [like],
  );
  for (const profile of profiles)
    found.push({
      kind: 'profile',
      title: profile.name,
      detail: `profile v${profile.version}`,
      href: `/conditions/${profile.conditionId}/profile?version=${profile.id}`,
    });
  for (const set of (await listAimSets(services.database)).filter(({ name }) => holds(name)).slice(0, 6))
    found.push({
      kind: 'aim set',
      title: set.name,
      detail: `aims, ${set.patches} patches`,
      href: '/library/aims',
    });
  for (const set of (await listToleranceSets(services.database))
    .filter(({ name }) => holds(name))
    .slice(0, 6))
    found.push({
      kind: 'tolerance set',
      title: set.name,
      detail: 'tolerances',
      href: `/library/tolerances?set=${set.id}`,
    });
  return found;
}
