import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { LEAST_TURN, MOST_LEFT_OVER } from '@melto/core/light/brightenerStudy';
import type { StudyEstimate, StudyPick } from '@melto/core/light/brightenerStudy';
import type { ConditionRow } from '@melto/services/ledger/conditions';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { ASKED } from './Picks';
import { StudySurface } from './StudySurface';
import { studySentences } from './studyWords';

const TOLD: StudyEstimate = {
  ...{ share: 0.34, range: [0.26, 0.43], scatter: 0.8, turn: 2.1, tells: true },
  ...{ atTheEnd: [], leftOver: 0.4 },
};
const estimated: (readonly StudyPick[])[] = [];
let told = TOLD;
vi.mock('@/ui/useRemoteWorker', () => ({
  useRemoteWorker: () => ({
    estimate: (_: unknown, picks: readonly StudyPick[]) => {
      estimated.push(picks);
      return Promise.resolve(told);
    },
  }),
}));

const condition = { id: 5, deviceDriver: 'wren' } as ConditionRow;
const LIGHTS = [
  { key: 'D50', id: null, name: 'D50', away: false },
  { key: 'own-4', id: 4, name: 'Gallery track', away: false },
];

describe('what a study came to', () => {
  it('is said with its range; a paper without brightener is said to be one', () => {
    expect(studySentences(TOLD)[0]).toBe(
      'Nine times out of ten the share that acts lies between 0.26 and 0.43.',
    );
    expect(studySentences({ ...TOLD, tells: false, turn: LEAST_TURN - 0.1 })).toHaveLength(1);
    expect(studySentences({ ...TOLD, tells: false, turn: 0.2 })[0]).toContain('next to no brightener');
  });

  it.each([
    [{ scatter: 0.69 }, 'The picks agree', true],
    [{ scatter: 0.7 }, 'as eyes do', true],
    [{ scatter: 1.79 }, 'as eyes do', true],
    [{ scatter: 1.8 }, 'rest your eyes', true],
    [{ scatter: null }, 'Picks', false],
    [{ leftOver: MOST_LEFT_OVER }, 'do not fit', false],
    [{ leftOver: MOST_LEFT_OVER + 0.01 }, 'do not fit the readings', true],
    [{ atTheEnd: [0, 2] }, 'row A and C lies at an end', true],
  ] as const)('%j', (change, words, said) => {
    expect(studySentences({ ...TOLD, ...change }).some((sentence) => sentence.includes(words))).toBe(said);
  });
});

describe('a brightener study', () => {
  const choose = async (user: ReturnType<typeof show>['user']): Promise<void> => {
    await user.click(screen.getByRole('combobox', { name: 'Light' }));
    // A standard light hangs nowhere: it has no prints to look at.
    expect((await screen.findAllByRole('option')).map((option) => option.textContent)).toEqual([
      'Gallery track',
    ]);
    await user.click(screen.getByRole('option', { name: 'Gallery track' }));
  };

  it('asks row by row, takes a pick back, and keeps what it came to with the light', async () => {
    told = TOLD;
    const { sent } = fakeServer({
      'GET /api/lights': LIGHTS,
      'GET /api/conditions/5/study-data': { channels: 3 },
      'PUT /api/lights/4/ultraviolet': {},
    });
    const { user } = show(<StudySurface condition={condition} simulated={false} />);
    await choose(user);
    expect((await screen.findByRole('status')).textContent).toBe(
      'Row A: which field is as neutral as the grey card?',
    );
    await user.click(screen.getByRole('button', { name: 'Field 15' }));
    expect(screen.getByRole('status').textContent).toContain('Row B');
    await user.click(screen.getByRole('button', { name: 'take the last one back' }));
    expect(screen.getByRole('status').textContent).toContain('Row A');
    // By keys alone: along the row and Enter.
    within(screen.getByRole('group')).getByRole('button', { name: 'Field 1' }).focus();
    await user.keyboard('{ArrowLeft}{ArrowRight}{ArrowRight}{Enter}');
    expect(screen.getByText('1 of 12 picks')).toBeTruthy();
    for (let i = 1; i < ASKED.length; i++) await user.click(screen.getByRole('button', { name: 'Field 8' }));
    expect(await screen.findByText('0.34')).toBeTruthy();
    const first = ASKED.map((row, i) => ({ row, field: i === 0 ? 2 : 7, eye: 0 }));
    expect(estimated.at(-1)).toEqual(first);
    // Another person looks as well: what the first one picked stays, and cannot be seen by the second.
    await user.click(screen.getByRole('button', { name: 'Let another person look as well' }));
    expect(screen.getByText('0 of 12 picks, person 2')).toBeTruthy();
    for (const _ of ASKED) await user.click(screen.getByRole('button', { name: 'Field 4' }));
    expect(await screen.findByText('0.34')).toBeTruthy();
    expect(estimated.at(-1)).toEqual([...first, ...ASKED.map((row) => ({ row, field: 3, eye: 1 }))]);
    await user.click(screen.getByRole('button', { name: 'Keep it with the light' }));
    await expect.poll(() => navigation.went).toEqual(['/conditions/5/profile']);
    expect(sent.find(({ method }) => method === 'PUT')?.body).toEqual({ share: 0.34, low: 0.26, high: 0.43 });
  });

  it('says that there is nothing to keep on a paper without brightener', async () => {
    told = { ...TOLD, tells: false, turn: 0.1 };
    fakeServer({
      'GET /api/lights': LIGHTS,
      'GET /api/conditions/5/study-data': { channels: 3 },
      'GET /api/conditions/5/simulated-picks': ASKED.map((row) => ({ row, field: 8 })),
    });
    const { user } = show(<StudySurface condition={condition} simulated />);
    await choose(user);
    await user.click(await screen.findByRole('button', { name: 'Let the simulated eye look' }));
    expect(await screen.findByText(/next to no brightener/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Keep it with the light' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Look again' }));
    expect(screen.getByText('0 of 12 picks')).toBeTruthy();
  });

  it('says why the readings do not tell', async () => {
    fakeServer({
      'GET /api/lights': LIGHTS,
      'GET /api/conditions/5/study-data': new Refused(409, {
        title: 'W-1 was not read in M2.',
        detail: 'Read it.',
      }),
    });
    const { user } = show(<StudySurface condition={condition} simulated={false} />);
    await choose(user);
    expect((await screen.findByRole('alert')).textContent).toBe('W-1 was not read in M2. Read it.');
    expect(screen.queryByRole('group')).toBeNull();
  });
});
