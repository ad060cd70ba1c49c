/** @jest-environment ./testing/browser-environment.mjs */
import type { Column, SourceRecord } from '@mailbag/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { BrowserRouter } from 'react-router';
import type { Corrections } from '../use-corrections';
import { RecordGrid } from './record-grid';

/** The records as a sheet (WAI-ARIA Authoring Practices, “Grid pattern”: one stop, with the active cell named by it). */
const columns: Column[] = ['Plot', 'Name', 'Rent'].map((name) => ({ name, slug: name.toLowerCase(), kind: name === 'Rent' ? 'number' : 'text', empty: 0, distinct: 3, longest: 'P-1', examples: [] })); // prettier-ignore
const records: SourceRecord[] = [
  ['P-1', 'Ada', 12],
  ['P-2', 'Bea', 9],
  ['P-3', 'Cleo', 7],
].map((values, at) => ({ row: at + 2, cells: values.map((value) => ({ text: String(value), value })) }));

let changes: { row: number; column: string; value: string }[] = [];
const corrections = {
  correct: (row: number, column: string, value: string) => void changes.push({ row, column, value }),
  correctMany: (all: typeof changes) => void changes.push(...all),
  isBusy: false,
} as unknown as Corrections;

const sizes = { clientHeight: 600, clientWidth: 800, offsetHeight: 600, offsetWidth: 800 };
beforeAll(() => {
  for (const [name, value] of Object.entries(sizes)) Object.defineProperty(HTMLElement.prototype, name, { configurable: true, value });
  HTMLElement.prototype.scrollTo = () => undefined;
});
beforeEach(() => {
  changes = [];
  window.history.replaceState({}, '', '/');
});

const setUp = (more: Partial<Parameters<typeof RecordGrid>[0]> = {}) => {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(['records', 1, 0, 200], { records, corrections: [] });
  render(
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <RecordGrid sourceId={1} columns={columns} total={3} keyColumn="Plot" corrections={corrections} {...more} />
      </BrowserRouter>
    </QueryClientProvider>,
  );
  return userEvent.setup();
};
const grid = (): HTMLElement => screen.getByRole('grid', { name: 'Records' });
const cell = (text: string): HTMLElement => screen.getByRole('gridcell', { name: text });
const active = (): string | null | undefined => document.getElementById(grid().getAttribute('aria-activedescendant') ?? '')?.textContent;
const picked = (): (string | null)[] =>
  screen.getAllByRole('gridcell').filter((one) => one.getAttribute('aria-selected') === 'true').map(({ textContent }) => textContent); // prettier-ignore
const clipboard = (text: string) => ({
  clipboardData: { getData: (type: string) => (type === 'text/plain' ? text : ''), types: ['text/plain'] },
});

test('it says how many rows and columns it has, and each row and cell which one it is', () => {
  setUp();
  expect([grid().getAttribute('aria-rowcount'), grid().getAttribute('aria-colcount')]).toEqual(['4', '4']);
  expect(cell('Bea').getAttribute('aria-colindex')).toBe('3');
  expect(cell('Bea').closest('[role=row]')!.getAttribute('aria-rowindex')).toBe('3');
  expect(screen.getByRole('rowheader', { name: '3' })).toBeTruthy();
});

test('the arrow keys move the active cell, which the grid names; Shift picks a range, Escape lets go of it', async () => {
  const user = setUp();
  grid().focus();
  await user.keyboard('{ArrowDown}{ArrowRight}');
  expect(active()).toBe('Bea');
  await user.keyboard('{Shift>}{ArrowDown}{ArrowRight}{/Shift}');
  expect(picked()).toEqual(['Bea', '9', 'Cleo', '7']);
  await user.keyboard('{Escape}');
  expect(picked()).toEqual(['Bea']);
  await user.keyboard('{Control>}{End}{/Control}');
  expect(active()).toBe('7');
  await user.keyboard('{Control>}a{/Control}');
  expect(picked()).toHaveLength(9);
});

test('a letter replaces the value, Enter keeps it and goes down, Escape leaves it as it was', async () => {
  const user = setUp();
  grid().focus();
  await user.keyboard('{ArrowRight}X');
  await user.keyboard('y{Enter}');
  expect(changes).toEqual([{ row: 2, column: 'Name', value: 'Xy' }]);
  expect(active()).toBe('Bea');
  await user.keyboard('{F2}');
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: /Name/ }).value).toBe('Bea');
  await user.keyboard('{Escape}');
  expect(changes).toHaveLength(1);
});

test('Delete empties what is picked, and what is pasted fills it, both in one step', async () => {
  const user = setUp();
  grid().focus();
  await user.keyboard('{ArrowRight}{Shift>}{ArrowDown}{/Shift}{Delete}');
  await Promise.resolve();
  await screen.findByText('Ada');
  expect(changes).toEqual([
    { row: 2, column: 'Name', value: '' },
    { row: 3, column: 'Name', value: '' },
  ]);
  changes = [];
  await user.keyboard('{Escape}{Control>}{Home}{/Control}');
  fireEvent.paste(grid(), clipboard('X-1\tZoë\nX-2\t"Quist, ""Pip"""'));
  await screen.findByText('Ada');
  expect(changes).toEqual([
    { row: 2, column: 'Plot', value: 'X-1' },
    { row: 2, column: 'Name', value: 'Zoë' },
    { row: 3, column: 'Plot', value: 'X-2' },
    { row: 3, column: 'Name', value: 'Quist, "Pip"' },
  ]);
});

test('F8 goes to the next record with a finding, and round again; who may not change anything changes nothing', async () => {
  const user = setUp({ flagged: [1, 2], corrections: undefined });
  grid().focus();
  await user.keyboard('{F8}');
  expect(active()).toBe('P-2');
  await user.keyboard('{F8}{F8}');
  expect(active()).toBe('P-2');
  await user.keyboard('x{Delete}');
  expect(screen.queryByRole('textbox', { name: /row 3/ })).toBeNull();
  expect(changes).toEqual([]);
});
