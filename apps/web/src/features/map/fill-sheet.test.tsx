/** @jest-environment ./testing/browser-environment.mjs */
import type { TemplateDetail } from '@mailbag/contract';
import type { Column, Evaluation, Field, FieldMap, FillRule } from '@mailbag/core';
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { fieldMark } from './field-mark';
import type { ChosenField } from './fill-sheet';
import { FillSheet } from './fill-sheet';
import { mapsWithRule, packetEntries } from './packet-entries';

// It is there at once here; that it comes when it is wanted, browsers show.
jest.mock('./rules/loaded-rule-body', () => ({
  RuleBody: Object.assign(jest.requireActual<{ default: object }>('./rules/rule-body').default, { ahead: () => undefined }),
}));

/** The fill sheet as people use it: a tree grid of one tab stop (WAI-ARIA Authoring Practices, “Treegrid pattern”). */
const field = (name: string, label: string, more: Partial<Field> = {}): Field =>
  ({ name, partialName: name, kind: 'text', tooltip: null, label, labelFrom: 'print', page: 1, flags: [], maxLength: null, options: [], onValues: [], value: null, format: null, widgets: [], ...more }) as unknown as Field; // prettier-ignore
const template = {
  id: 1,
  name: 'Shed permit',
  fieldList: [
    field('plot', 'Plot', { flags: ['required'] }),
    field('name', 'Name of tenant', { maxLength: 3 }),
    field('rent', 'Rent', { page: 2 }),
  ],
  answers: [],
} as unknown as TemplateDetail;
const columns: Column[] = ['Plot', 'Name'].map((name) => ({ name, slug: name.toLowerCase(), kind: 'text', empty: 0, distinct: 2, longest: '', examples: [] })); // prettier-ignore
const values: Record<string, string> = { plot: 'B-17', name: 'Ayla Ünal' };

let map: FieldMap = {};
function Shown() {
  const [maps, setMaps] = useState<Record<number, FieldMap>>({ 1: { name: { kind: 'column', column: 'Name' } } });
  const [chosen, choose] = useState<ChosenField | null>(null);
  map = maps[1]!;
  const evaluation: Evaluation = {
    values: Object.fromEntries(Object.keys(map).map((name) => [name, values[name] ?? ''])),
    problems: [],
  } as never;
  const onRule = (entry: Parameters<typeof mapsWithRule>[1], rule: FillRule | undefined): void => setMaps(mapsWithRule(maps, entry, rule));
  return (
    <>
      <button type="button">before</button>
      <FillSheet
        entries={packetEntries([template], maps, columns)}
        columns={columns}
        work={null}
        locale="en-GB"
        whose="Ayla Ünal"
        maps={maps}
        evaluations={new Map([[1, evaluation]])}
        markFor={(entry) => fieldMark(entry.field, map[entry.field.name], evaluation, [])}
        chosen={chosen}
        pointed={null}
        onChoose={(id, name) => choose(chosen?.field === name ? null : { template: id, field: name })}
        onPoint={() => undefined}
        onRule={onRule}
        onPiece={() => undefined}
        onAccept={(entries) => entries.forEach((entry) => entry.suggested && onRule(entry, entry.suggested.rule))}
        handing={() => null}
        distribution={() => null}
      />
      <button type="button">behind</button>
    </>
  );
}
const setUp = () => {
  render(<Shown />);
  return userEvent.setup();
};
const row = (name: RegExp): HTMLElement => screen.getByRole('row', { name });

test('each row says its label, its rule, its value and its mark, below the page that it stands on', () => {
  setUp();
  const tree = screen.getByRole('treegrid', { name: 'Answers of the packet' });
  expect(within(tree).getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual(['Field', 'Filled with', 'Ayla Ünal', 'Mark']); // prettier-ignore
  expect(row(/page 1/).getAttribute('aria-level')).toBe('1');
  expect(row(/^Plot/).getAttribute('aria-level')).toBe('2');
  expect(row(/^Plot/).textContent).toMatch(/required/);
  expect(row(/^Name of tenant/).textContent).toMatch(/Name.*Ayla Ünal.*too long/);
  expect(row(/^Rent/).textContent).toMatch(/open/);
});

test('Tab comes to one row and leaves the sheet with the next press; the arrow keys go from row to row, over pages', async () => {
  const user = setUp();
  await user.click(screen.getByText('before'));
  await user.tab();
  expect(document.activeElement).toBe(row(/^Plot/));
  await user.keyboard('{ArrowDown}{ArrowDown}');
  expect(document.activeElement).toBe(row(/^Rent/));
  await user.keyboard('{ArrowDown}');
  expect(document.activeElement).toBe(row(/^Rent/));
  await user.keyboard('{Home}');
  expect(document.activeElement).toBe(row(/^Plot/));
  await user.keyboard('{End}{ArrowUp}');
  expect(document.activeElement).toBe(row(/^Name of tenant/));
  // Whoever comes back comes to the row where they were.
  await user.tab({ shift: true });
  await user.tab({ shift: true });
  await user.click(screen.getByText('before'));
  await user.tab();
  expect(document.activeElement).toBe(row(/^Name of tenant/));
});

test('Enter opens the rule of an answer below its row, and Escape leads back from it', async () => {
  const user = setUp();
  await user.click(screen.getByText('before'));
  await user.tab();
  await user.keyboard('{ArrowDown}{Enter}');
  expect(row(/^Name of tenant/).getAttribute('aria-expanded')).toBe('true');
  const editor = screen.getByRole('group', { name: 'Rule for name' });
  expect(screen.getByRole('row', { name: 'Rule of Name of tenant' }).contains(editor)).toBe(true);
  await within(editor).findByRole('button', { name: /Name.*Column|Column/ });
  act(() => within(editor).getByRole('button', { name: 'Remove rule' }).focus());
  await user.keyboard('{Escape}');
  expect(document.activeElement).toBe(row(/^Name of tenant/));
  await user.keyboard('{Enter}');
  expect(row(/^Name of tenant/).getAttribute('aria-expanded')).toBe('false');
  expect(screen.queryByRole('group', { name: 'Rule for name' })).toBeNull();
});

test('a suggestion is accepted from its row, and a rule is removed in its editor', async () => {
  const user = setUp();
  await user.click(within(row(/^Plot/)).getByRole('button', { name: 'Accept the suggestion for Plot' }));
  expect(map).toMatchObject({ plot: { kind: 'column', column: 'Plot' } });
  expect(row(/^Plot/).textContent).toMatch(/B-17.*fits/);
  await user.click(row(/^Plot/));
  await user.click(screen.getByRole('button', { name: 'Remove rule' }));
  expect(map).not.toHaveProperty('plot');
  expect(row(/^Plot/).textContent).toMatch(/required/);
});
