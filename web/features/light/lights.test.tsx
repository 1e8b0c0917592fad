import { screen, within } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { describeLight } from '@melto/core/light/describeLight';
import { lightOfKey } from '@melto/core/light/standardLights';
import { TABLE_GRID } from '@melto/core/spectral/illuminant';
import type { ViewingLight } from '@melto/services/light/viewingLights';
import { OwnRole } from '@/ui/May';
import { AWAY, fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { LightField } from './LightField';
import { LightFacts } from './LightFacts';
import { lightSentence } from './lightWords';
import { LightsSurface } from './LightsSurface';
import { SeenInPanel } from './SeenInPanel';
import { DAYLIGHT } from './useLights';
import type { SeenInKey } from './useLights';

function lightOf(key: string, own?: Partial<ViewingLight>): ViewingLight {
  const light = lightOfKey(key);
  if (light === undefined) throw new Error(key);
  const power = [...light.power];
  return {
    ...{ key, id: null, name: key, note: '', fileName: '', madeMs: null, away: false, ultraviolet: null },
    ...{ figures: describeLight(light), grid: TABLE_GRID, power },
    ...own,
  };
}
const [d50, f2] = [lightOf('D50'), lightOf('F2')];
const gallery = lightOf('A', {
  ...{ key: 'own-4', id: 4, name: 'Gallery track', note: 'warm', fileName: 'g.csv', madeMs: 0 },
  grid: { startNm: 340, stepNm: 5, count: 81 },
  figures: { ...lightOf('A').figures, uvShare: 0.021 },
});

describe('a light in words', () => {
  it.each([
    ['D50', 'Near enough to D50 to compare prints in'],
    ['F8', 'Near enough to D50'],
    ['D65', 'Colder than D50. A profile of its own'],
    ['A', 'Warmer than daylight. A profile'],
    ['F2', 'Warmer than daylight, and it changes colours (Ra 64.2)'],
    ['F11', 'Warmer than daylight, and it changes colours (Ra 82.8)'],
  ] as const)('tells what %s is good for', (key, words) => {
    expect(lightSentence(lightOf(key).figures)).toContain(words);
  });

  it('tells of D50’s colour with poor rendering, and of what is no white', () => {
    const { figures } = d50;
    const at = (general: number) => lightSentence({ ...figures, rendering: { general, special: [] } });
    expect(at(90)).toContain('Near enough');
    expect(at(89.9)).toContain('shows colours as D50 does not');
    const from = (fromD50: number) => lightSentence({ ...figures, fromD50 });
    expect(from(0.005)).toContain('Near enough');
    expect(from(0.0051)).toContain('Near daylight, but not D50');
    expect(lightSentence({ ...figures, temperature: null })).toContain('no white light');
    expect(lightSentence({ ...figures, rendering: null })).toContain('too far from white');
    const tint = (duv: number) =>
      lightSentence({ ...figures, fromD50: 0.02, temperature: { kelvin: 5000, duv } });
    expect(tint(0.0061)).toContain('green tint');
    expect(tint(-0.0061)).toContain('pink tint');
    expect(tint(0.0059)).not.toContain('tint');
  });
});

describe('the figures of a light', () => {
  it('are shown, and what its spectrum does not show is said', () => {
    const { rerender } = show(<LightFacts light={f2} daylight={d50} />);
    expect(screen.getByText('4225 K')).toBeTruthy();
    expect(screen.getByRole('list', { name: 'Special indices' }).textContent).toContain('R9 −84R10');
    expect(screen.getByText(/towards green/)).toBeTruthy();
    expect(screen.getByText('not shown: the spectrum begins at 380 nm')).toBeTruthy();
    rerender(<LightFacts light={gallery} daylight={d50} />);
    expect(screen.getByText('2.1 %')).toBeTruthy();
    // A black body itself lies beside none.
    expect(screen.queryByText(/towards/)).toBeNull();
    expect(screen.getByText('warm')).toBeTruthy();
    rerender(
      <LightFacts light={{ ...f2, figures: { ...f2.figures, temperature: null, rendering: null } }} />,
    );
    expect(screen.getByText('none: it is no white')).toBeTruthy();
    expect(screen.getByText('too far from white')).toBeTruthy();
  });
});

describe('the lights of the library', () => {
  const surface = (shown?: string) => <LightsSurface lights={[d50, f2, gallery]} shown={shown} />;

  it('are listed; a standard one is not renamed', () => {
    show(surface());
    const list = within(screen.getByRole('navigation', { name: 'Lights' }));
    expect(list.getAllByRole('link').map((link) => link.textContent)).toEqual([
      'D505002 K, Ra 100.0',
      'F24225 K, Ra 64.2',
      'Gallery track2856 K, Ra 100.0, of the house',
    ]);
    expect(screen.queryByRole('button', { name: 'Name it' })).toBeNull();
  });

  it('take a file, and say why it is none', async () => {
    const answers = [
      new Refused(400, { title: 'x.csv holds no light.', detail: 'Nothing was stored.' }),
      { taken: [{ id: 9, name: 'x' }] },
    ];
    const { sent } = fakeServer({ 'POST /api/lights': () => answers.shift() });
    const { user } = show(surface());
    const give = () =>
      user.upload(screen.getByLabelText('Take a measured light'), new File(['nm,x'], 'x.csv'));
    await give();
    expect((await screen.findByRole('alert')).textContent).toBe('x.csv holds no light. Nothing was stored.');
    await give();
    await expect.poll(() => navigation.went.at(-1)).toBe('/library/lights?light=own-9');
    expect(sent.map(({ path }) => path)).toEqual(['/api/lights?name=x.csv', '/api/lights?name=x.csv']);
  });

  it('are named and put away, where one may', async () => {
    const { sent } = fakeServer({ 'PUT /api/lights/4': {}, 'PUT /api/lights/4/away': {} });
    const { user } = show(surface('own-4'));
    await user.click(screen.getByRole('button', { name: 'Name it' }));
    const name = screen.getByRole('textbox', { name: 'Name' });
    await user.clear(name);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' }).disabled).toBe(true);
    await user.type(name, 'North wall');
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    await expect.poll(() => sent.map(({ body }) => body)).toEqual([{ name: 'North wall', note: 'warm' }]);
    await user.click(await screen.findByRole('button', { name: 'Put away' }));
    await expect.poll(() => sent.at(-1)?.body).toEqual({ away: true });
  });

  it('offer an operator nothing that is refused', () => {
    show(<OwnRole value="operator">{surface('own-4')}</OwnRole>);
    for (const name of ['Name it', 'Put away', 'Take a measured light'])
      expect(screen.queryByRole('button', { name })).toBeNull();
  });
});

function Field() {
  const [value, setValue] = useState<SeenInKey>(DAYLIGHT);
  return (
    <>
      <LightField label="Seen in" value={value} onChange={setValue} />
      <output>{value}</output>
    </>
  );
}

describe('the choice of a light', () => {
  it('has each for both observers, and none that was put away', async () => {
    fakeServer({ 'GET /api/lights': [d50, { ...f2, away: true }, gallery] });
    const { user } = show(<Field />);
    await user.click(screen.getByRole('combobox'));
    expect((await screen.findAllByRole('option')).map((option) => option.textContent)).toEqual([
      'D50, 2°',
      'D50, 10°',
      'Gallery track, 2°',
      'Gallery track, 10°',
    ]);
    await user.click(screen.getByRole('option', { name: 'Gallery track, 10°' }));
    expect(screen.getByRole('status').textContent).toBe('own-4/10deg');
  });

  it('is D50 where the server does not answer', async () => {
    fakeServer({
      'GET /api/lights': () => {
        throw AWAY;
      },
    });
    const { user } = show(<Field />);
    await user.click(screen.getByRole('combobox'));
    expect(screen.getAllByRole('option').map((option) => option.textContent)).toEqual(['D50, 2°']);
  });
});

describe('a reading in another light', () => {
  it('shows what moves most, and a refusal in its words', async () => {
    const patches = [0, 1, 2].map((row) => ({ row, lab: [50, 0, 0], moved: row + 0.5 }));
    const answers: unknown[] = [
      patches,
      new Refused(400, { title: 'Read as colours only.', detail: 'Take spectra.' }),
    ];
    const { sent } = fakeServer({ 'GET /api/readings/3/under': () => answers.shift() });
    const picked: number[] = [];
    const { user } = show(<SeenInPanel readingId={3} onPick={(row) => picked.push(row)} />);
    await user.click(screen.getByRole('combobox', { name: 'Seen in' }));
    await user.click(await screen.findByRole('option', { name: 'F11, 2°' }));
    const first = await screen.findByRole('button', { name: 'patch 3' });
    expect(sent[0].path).toBe('/api/readings/3/under?light=F11&observer=2deg');
    expect(screen.getAllByRole('listitem').map((item) => item.textContent?.replace(/ .*/, ''))).toHaveLength(
      3,
    );
    await user.click(first);
    expect(picked).toEqual([2]);
    await user.click(screen.getByRole('combobox', { name: 'Seen in' }));
    await user.click(await screen.findByRole('option', { name: 'F11, 10°' }));
    expect((await screen.findByRole('alert')).textContent).toBe('Read as colours only. Take spectra.');
  });
});
