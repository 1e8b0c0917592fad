import { Type } from '@sinclair/typebox';
import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { oneOf, strict } from '@/endpoints/endpoint';
import { show } from '@/testing/show';
import { numberOf } from '@/ui/numberOf';
import { ChoiceIn, ChoicesIn, TextIn } from './fields';
import { problemsOf, useBodyForm } from './useBodyForm';

const BODY = strict({
  name: Type.String({ minLength: 1, maxLength: 5 }),
  kind: oneOf(['a', 'b'] as const),
  duty: Type.Union([Type.Null(), strict({ days: Type.Integer({ minimum: 1, maximum: 400 }) })]),
  list: Type.Array(Type.String({ pattern: '^x' })),
});
const GOOD = { name: 'wren', kind: 'a', duty: null, list: [] };

describe('what is wrong with a body', () => {
  it.each([
    ['nothing', {}, []],
    ['an empty text', { name: '' }, ['name: Needed']],
    ['the longest text', { name: 'wrens' }, []],
    ['a longer text', { name: 'sparrow' }, ['name: 5 letters at most']],
    ['nothing chosen', { kind: undefined }, ['kind: Needed']],
    ['a word of none', { kind: 'c' }, ['kind: Not as it can be taken']],
    ['the least and the most', { duty: { days: 1 } }, []],
    ['less', { duty: { days: 0 } }, ['duty.days: A whole number, 1 to 400']],
    ['more', { duty: { days: 401 } }, ['duty.days: A whole number, 1 to 400']],
    ['no number', { duty: { days: NaN } }, ['duty.days: A whole number, 1 to 400']],
    ['an entry of a list', { list: ['x', 'y'] }, ['list.1: Not as it can be taken']],
  ])('%s', (_, change, said) =>
    expect(problemsOf(BODY, { ...GOOD, ...change }).map(({ path, words }) => `${path}: ${words}`)).toEqual(
      said,
    ),
  );
});

describe('a form', () => {
  let kept: unknown;
  function Form() {
    const form = useBodyForm(
      BODY,
      { name: '', kind: '' as 'a' | 'b' | '', days: '', list: [] as string[] },
      ({ name, kind, days, list }) => ({
        ...{ name, list },
        kind: kind === '' ? undefined : kind,
        duty: days === '' ? null : { days: numberOf(days) },
      }),
      { fields: { 'duty.days': 'days' }, words: { list: 'Only x' } },
    );
    return (
      <>
        <TextIn form={form} name="name" label="Name" help="as on its label" />
        <ChoiceIn form={form} name="kind" label="Kind" choices={{ a: 'first', b: 'second' }} />
        <TextIn form={form} name="days" label="Days" />
        <ChoicesIn form={form} name="list" label="List" choices={{ x1: 'one', y: 'other' }} />
        <button type="button" disabled={!form.ready} onClick={() => (kept = form.body())}>
          Keep
        </button>
      </>
    );
  }

  it('is held back until its body is whole, and says what is wrong only where somebody typed', async () => {
    const { user } = show(<Form />);
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' });
    expect(keep.disabled).toBe(true);
    expect(screen.queryByText('Needed')).toBeNull();
    expect(screen.getByText('as on its label')).toBeTruthy();
    await user.type(screen.getByLabelText('Name'), 'w');
    await user.clear(screen.getByLabelText('Name'));
    await user.tab();
    expect(await screen.findByText('Needed')).toBeTruthy();
    await user.type(screen.getByLabelText('Name'), 'wren');
    await user.click(screen.getByRole('combobox', { name: 'Kind' }));
    await user.click(screen.getByRole('option', { name: 'second' }));
    await waitFor(() => expect(keep.disabled).toBe(false));
    await user.type(screen.getByLabelText('Days'), '0');
    expect(await screen.findByText('A whole number, 1 to 400')).toBeTruthy();
    expect(keep.disabled).toBe(true);
    await user.type(screen.getByLabelText('Days'), '{Backspace}14');
    await user.click(screen.getByRole('combobox', { name: 'List' }));
    await user.click(screen.getByRole('option', { name: 'other' }));
    expect(await screen.findByText('Only x')).toBeTruthy();
    await user.click(screen.getByRole('option', { name: 'other' }));
    await user.click(screen.getByRole('option', { name: 'one' }));
    await user.keyboard('{Escape}');
    await waitFor(() => expect(keep.disabled).toBe(false));
    await user.click(keep);
    expect(kept).toEqual({ name: 'wren', kind: 'b', duty: { days: 14 }, list: ['x1'] });
  });
});
