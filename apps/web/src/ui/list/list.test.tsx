/** @jest-environment ./testing/browser-environment.mjs */
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { BrowserRouter, Link, useLocation } from 'react-router';
import type { ListColumn } from './column';
import { List } from './list';

/** A list as people use it, by mouse and by keyboard (WAI-ARIA Authoring Practices, “Grids: interactive tabular data”). */
interface Form {
  id: number;
  name: string;
  pages: number | null;
}
const forms: Form[] = [
  { id: 1, name: 'Permit 10', pages: 2 },
  { id: 2, name: 'Permit 9', pages: null },
  { id: 3, name: 'Mandate', pages: 11 },
  { id: 4, name: 'Agreement', pages: 3 },
];
const columns: ListColumn<Form>[] = [
  {
    id: 'name',
    head: 'Name',
    minWidth: 100,
    isFixed: true,
    text: ({ name }) => name,
    cell: ({ id, name }) => <Link to={`/forms/${id}`}>{name}</Link>,
  },
  { id: 'pages', head: 'Pages', minWidth: 50, text: ({ pages }) => String(pages ?? ''), value: ({ pages }) => pages },
  { id: 'code', head: 'Code', minWidth: 50, isExtra: true, text: ({ id }) => `F-${id}` },
];
const done: string[] = [];
/** A screen that is drawn anew hands over rows and columns anew. */
function Shown({ rows }: { rows: Form[] }) {
  const { pathname, search } = useLocation();
  return (
    <>
      <p data-testid="address">{pathname + search}</p>
      <List
        id="forms"
        label="forms"
        noun={['form', 'forms']}
        columns={[...columns]}
        rows={[...rows]}
        keyOf={({ id }) => id}
        nameOf={({ name }) => name}
        to={({ id }) => `/forms/${id}`}
        searchHint="Name"
        empty={(isSearch) => <p>{isSearch ? 'No matches' : 'No forms yet'}</p>}
        actions={(picked, clear) => (
          <button
            type="button"
            onClick={() => {
              done.push(picked.map(({ name }) => name).join(', '));
              clear();
            }}
          >
            Archive them
          </button>
        )}
      />
    </>
  );
}
beforeAll(() => {
  // There is no layout here: the window of the list is as high as some rows.
  const sizes = { clientHeight: 600, clientWidth: 800, offsetHeight: 34, offsetWidth: 800 };
  for (const [name, size] of Object.entries(sizes)) Object.defineProperty(HTMLElement.prototype, name, { get: () => size });
  HTMLElement.prototype.scrollTo = () => undefined;
  window.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
beforeEach(() => {
  window.history.replaceState(null, '', '/forms');
  localStorage.clear();
  done.length = 0;
});
const shown = (rows = forms) => {
  render(
    <BrowserRouter useTransitions={false}>
      <Shown rows={rows} />
    </BrowserRouter>,
  );
  return userEvent.setup();
};
const names = (): string[] => screen.queryAllByRole('link').map(({ textContent }) => textContent);
const address = (): string | null => screen.getByTestId('address').textContent;
const rowOf = (name: string): HTMLElement => screen.getByRole('row', { name: new RegExp(name) });

test('a heading orders the rows up, down and as they came, what is missing last, and the order stands in the address', async () => {
  const user = shown();
  const pages = screen.getByRole('button', { name: 'Pages' });
  await user.click(pages);
  expect([names(), address()]).toEqual([['Permit 10', 'Agreement', 'Mandate', 'Permit 9'], '/forms?order=pages']);
  expect(screen.getByRole('columnheader', { name: 'Pages' }).getAttribute('aria-sort')).toBe('ascending');
  await user.click(pages);
  expect(names()).toEqual(['Mandate', 'Agreement', 'Permit 10', 'Permit 9']);
  await user.click(pages);
  expect([names(), address()]).toEqual([forms.map(({ name }) => name), '/forms']);
  await user.click(screen.getByRole('button', { name: 'Name' }));
  expect(names()).toEqual(['Agreement', 'Mandate', 'Permit 9', 'Permit 10']);
});

test('a search leaves what holds the words, says how many, and stands in the address', async () => {
  const user = shown();
  await user.type(screen.getByRole('textbox', { name: 'Search the forms' }), 'permit');
  expect(names()).toEqual(['Permit 10', 'Permit 9']);
  expect([screen.getByRole('status').textContent, address()]).toEqual(['2 forms of 4', '/forms?find=permit']);
  await user.type(screen.getByRole('textbox', { name: 'Search the forms' }), 'x');
  expect(screen.getByText('No matches')).toBeTruthy();
});

test('it is one tab stop; arrows go from row to row and into what a row holds, and Enter opens', async () => {
  const user = shown();
  await user.click(screen.getByRole('textbox', { name: 'Search the forms' }));
  await user.tab();
  await user.tab();
  await user.tab();
  expect(document.activeElement).toBe(rowOf('Permit 10'));
  await user.keyboard('{ArrowDown}{ArrowDown}');
  await waitFor(() => expect(document.activeElement).toBe(rowOf('Mandate')));
  await user.keyboard('{ArrowRight}{ArrowRight}');
  expect(document.activeElement).toBe(screen.getByRole('link', { name: 'Mandate' }));
  await user.keyboard('{Escape}');
  expect(document.activeElement).toBe(rowOf('Mandate'));
  await user.keyboard('{End}');
  await waitFor(() => expect(document.activeElement).toBe(rowOf('Agreement')));
  await user.keyboard('{Home}{ArrowUp}{ArrowRight}{ArrowRight}{Enter}');
  expect(address()).toBe('/forms?order=name');
  await user.keyboard('{Escape}{ArrowDown}');
  await waitFor(() => expect(document.activeElement).toBe(rowOf('Agreement')));
  await user.keyboard('{Enter}');
  expect(address()).toBe('/forms/4');
});

test('rows are picked by tick, Ctrl, Shift, Space and Ctrl A; something is done with them; Escape picks none', async () => {
  const user = shown();
  await user.click(screen.getByRole('checkbox', { name: 'Pick Permit 10' }));
  await user.keyboard('{Shift>}');
  await user.click(rowOf('Mandate'));
  await user.keyboard('{/Shift}');
  expect(screen.getByText('3 forms picked')).toBeTruthy();
  await user.keyboard('{Control>}');
  await user.click(rowOf('Permit 9'));
  await user.keyboard('{/Control}');
  expect(rowOf('Permit 9').getAttribute('aria-selected')).toBe('false');
  await user.click(screen.getByRole('button', { name: 'Archive them' }));
  expect([done, screen.queryByText(/picked/)]).toEqual([['Permit 10, Mandate'], null]);
  rowOf('Permit 9').focus();
  await user.keyboard(' {Shift>}{ArrowDown}{ArrowDown}{/Shift}');
  expect(screen.getByText('3 forms picked')).toBeTruthy();
  await user.keyboard('{Escape}');
  expect(screen.queryByText(/picked/)).toBeNull();
  await user.type(screen.getByRole('textbox', { name: 'Search the forms' }), 'permit');
  act(() => rowOf('Permit 10').focus());
  await user.keyboard('{Control>}a{/Control}');
  expect(screen.getByText('2 forms picked')).toBeTruthy();
});

test('columns are taken in and put away, and stay so', async () => {
  const user = shown();
  await user.click(screen.getByRole('button', { name: 'Columns' }));
  await user.click(screen.getByRole('menuitemcheckbox', { name: 'Code' }));
  await user.click(screen.getByRole('menuitemcheckbox', { name: 'Pages' }));
  await user.keyboard('{Escape}');
  expect(screen.getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual(['', 'Name', 'Code']);
  expect(localStorage.getItem('mailbag.columns.forms')).toBe('{"name":true,"pages":false,"code":true}');
});

test('of many rows only those are drawn that are seen; on paper stand all', async () => {
  shown(Array.from({ length: 1000 }, (_, at) => ({ id: at + 1, name: `Form ${at + 1}`, pages: 1 })));
  const drawn = (): number => document.querySelectorAll('[role=row][data-index]').length;
  expect(document.querySelector('[role=grid]')!.getAttribute('aria-rowcount')).toBe('1001');
  expect(drawn()).toBeGreaterThan(10);
  expect(drawn()).toBeLessThan(60);
  act(() => void window.dispatchEvent(new Event('beforeprint')));
  expect(drawn()).toBe(1000);
  act(() => void window.dispatchEvent(new Event('afterprint')));
  expect(drawn()).toBeLessThan(60);
});

test('a step of scrolling draws the rows that come in, and none that stays', () => {
  const many = Array.from({ length: 3000 }, (_, at) => ({ id: at + 1, name: `Form ${at + 1}`, pages: 1 }));
  const drawn: string[] = [];
  const counted: ListColumn<Form>[] = [{ ...columns[1]!, cell: ({ name }) => (drawn.push(name), name) }];
  const given = { keyOf: ({ id }: Form) => id, nameOf: ({ name }: Form) => name, empty: () => null };
  render(
    <BrowserRouter>
      <List id="scrolled" label="forms" noun={['form', 'forms']} columns={counted} rows={many} {...given} />
    </BrowserRouter>,
  );
  const grid = screen.getByRole('grid');
  expect(drawn).toContain('Form 10');
  drawn.length = 0;
  act(() => {
    Object.defineProperty(grid, 'scrollTop', { value: 200 });
    grid.dispatchEvent(new Event('scroll'));
  });
  expect(drawn.length).toBeGreaterThan(0);
  expect(drawn).not.toContain('Form 10');
});

test('where there is nothing, that is said', () => {
  shown([]);
  expect(screen.getByText('No forms yet')).toBeTruthy();
});
