/** @jest-environment ./testing/browser-environment.mjs */
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import RichEditor from './rich-editor';

const insertables = [
  { slug: 'plot', text: 'Plot' },
  { slug: 'name', text: 'Name' },
].map((one) => ({ ...one, detail: '' }));
const told: string[] = [];
beforeEach(() => void (told.length = 0));
beforeAll(() => {
  // What ProseMirror asks of a browser when it scrolls to the selection; nothing is laid out here.
  const none = Object.assign([], { item: () => null }) as unknown as DOMRectList;
  Range.prototype.getClientRects = () => none;
  Range.prototype.getBoundingClientRect = () => new DOMRect();
  HTMLElement.prototype.getClientRects = () => none;
});

function Message({ begin, outside }: { begin: string; outside?: string }) {
  const [value, setValue] = useState(begin);
  return (
    <>
      <RichEditor
        label="Message"
        value={value}
        onChange={(next) => {
          told.push(next);
          setValue(next);
        }}
        insertables={insertables}
      />
      {outside !== undefined && <button onClick={() => setValue(outside)}>undo the plan</button>}
    </>
  );
}
const text = (): HTMLElement => screen.getByRole('textbox', { name: 'Message' });
const tools = (): HTMLElement => screen.getByRole('toolbar', { name: 'Tools for message' });
const tool = (name: string): HTMLElement => within(tools()).getByRole('button', { name });

test('columns are chips with their names, and one that the records do not have is marked as lost', () => {
  render(<Message begin="<p>Dear {{ name }}, plot {{ gate }}</p>" />);
  const chips = [...text().querySelectorAll('.chip')];
  expect(chips.map(({ textContent }) => textContent)).toEqual(['Name', 'gate']);
  expect(chips.map((chip) => chip.hasAttribute('data-lost'))).toEqual([false, true]);
});

test('the tools are one stop with arrow keys, each says whether it is on, and changes the text (WAI-ARIA, “Toolbar pattern”)', async () => {
  const user = userEvent.setup();
  render(<Message begin="<p>Renew by May</p>" />);
  await user.tab();
  expect(document.activeElement).toBe(tool('Bold'));
  await user.keyboard('{ArrowRight}{ArrowRight}{ArrowRight}');
  expect(document.activeElement).toBe(tool('Heading'));
  expect(tool('Heading').getAttribute('aria-pressed')).toBe('false');
  await user.keyboard('{Enter}');
  await waitFor(() => expect(told.at(-1)).toMatch(/^<h2>Renew by May<\/h2>/));
  expect(tool('Heading').getAttribute('aria-pressed')).toBe('true');
  await user.click(tool('Undo'));
  await waitFor(() => expect(told.at(-1)).toMatch(/^<p>Renew by May<\/p>/));
  await user.click(tool('List'));
  await waitFor(() => expect(told.at(-1)).toMatch(/^<ul><li><p>Renew by May<\/p><\/li><\/ul>/));
});

test('a column is put where one writes, and is told as it is filled in', async () => {
  const user = userEvent.setup();
  render(<Message begin="<p></p>" />);
  await user.click(screen.getByRole('button', { name: /Put a column into the text/ }));
  await user.click(await screen.findByRole('option', { name: 'Plot' }));
  await waitFor(() => expect(told.at(-1)).toBe('<p>{{ plot }}</p>'));
});

test('where a link leads is asked below the tools; Escape goes back to the text and changes nothing', async () => {
  const user = userEvent.setup();
  render(<Message begin="<p>Read more</p>" />);
  await user.click(tool('Link'));
  const address = await screen.findByRole('textbox', { name: 'Address of the link' });
  expect(document.activeElement).toBe(address);
  await user.keyboard('{Escape}');
  expect(screen.queryByRole('textbox', { name: 'Address of the link' })).toBeNull();
  expect(told).toEqual([]);
});

test('what comes from elsewhere, such as undo of the whole plan, is taken over without being told again', async () => {
  const user = userEvent.setup();
  render(<Message begin="<p>New</p>" outside="<p>Old {{ plot }}</p>" />);
  await user.click(screen.getByRole('button', { name: 'undo the plan' }));
  await waitFor(() => expect(text().textContent).toBe('Old Plot'));
  expect(told).toEqual([]);
});
