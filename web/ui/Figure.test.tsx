import { screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { show } from '@/testing/show';
import { csv, Figure } from './Figure';

const TABLE = { head: ['patch', 'ΔE00'], rows: [['paper', 0.25] as const, ['red, dark', '1.50'] as const] };

describe('the numbers behind a picture', () => {
  it('as CSV quote what would break a line, double quotes, and end each line as spreadsheets want it', () => {
    expect(csv(TABLE)).toBe('patch,ΔE00\r\npaper,0.25\r\n"red, dark",1.50\r\n');
    expect(csv({ head: ['a"b'], rows: [['x\ny']] })).toBe('"a""b"\r\n"x\ny"\r\n');
    expect(csv({ head: ['a'], rows: [] })).toBe('a\r\n');
  });
});

describe('a figure', () => {
  afterEach(() => vi.restoreAllMocks());

  it('shows its picture, and its table instead; a table is not saved as a picture', async () => {
    const { user } = show(
      <Figure title="Errors of all" table={TABLE}>
        <svg aria-label="plot" role="img" />
      </Figure>,
    );
    expect(screen.getByRole('img', { name: 'plot' })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'table' }));
    expect(screen.queryByRole('img', { name: 'plot' })).toBeNull();
    expect(screen.getAllByRole('row')).toHaveLength(3);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'PNG' }).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'picture' }));
    expect(screen.getByRole('img', { name: 'plot' })).toBeTruthy();
  });

  it('is saved as CSV under its title', async () => {
    let saved: Blob | undefined;
    let name = '';
    URL.createObjectURL = (blob: Blob) => {
      saved = blob;
      return 'blob:x';
    };
    URL.revokeObjectURL = () => undefined;
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function click(
      this: HTMLAnchorElement,
    ) {
      name = this.download;
    });
    const { user } = show(
      <Figure title="Errors of all" table={TABLE}>
        <svg />
      </Figure>,
    );
    await user.click(screen.getByRole('button', { name: 'CSV' }));
    await waitFor(() => expect(saved).toBeDefined());
    expect(name).toBe('errors-of-all.csv');
    expect(await saved?.text()).toBe(csv(TABLE));
  });
});
