import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import type { ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { Parser } from 'htmlparser2';
import { ArchiveButton } from './archive-button';
import { Button, IconButton } from './button';
import { Choice } from './choice';
import { TextInput, Toggled } from './field';
import { Empty, Head, PartsBar, Waiting } from './layout';
import { loadedPart } from './loaded-part';
import { Loading } from './loading';
import { Mark, Notice } from './mark';
import { Offers } from './offers';
import { PickOne } from './pick-one';
import { LOOKS_ONLY, RightsProvider } from './rights';
import { SecretInput } from './special-input';

/** What a person reads, and what a screen reader is told: each element with its role, names and states, as a parser of HTML that is not ours finds them. */
interface Element {
  tag: string;
  attributes: Record<string, string>;
  text: string;
}
function drawn(node: ReactElement): Element[] {
  const all: Element[] = [];
  const open: Element[] = [];
  const parser = new Parser({
    onopentag: (tag, attributes) => {
      const one = { tag, attributes, text: '' };
      all.push(one);
      open.push(one);
    },
    ontext: (text) => open.forEach((one) => (one.text += text)),
    onclosetag: () => void open.pop(),
  });
  parser.write(renderToStaticMarkup(node));
  parser.end();
  return all.filter(({ tag }) => tag !== 'style');
}
const only = (node: ReactElement, tag: string): Element => {
  const found = drawn(node).filter((one) => one.tag === tag);
  expect([tag, found.length]).toEqual([tag, 1]);
  return found[0]!;
};
const nothing = (): void => undefined;

describe('buttons', () => {
  test('are buttons with their words', () => expect(only(<Button>Start a batch</Button>, 'button').text).toBe('Start a batch'));
  test('one that is only an icon has a name, without the keys behind it', () => {
    const button = only(
      <IconButton label="Undo (Ctrl Z)">
        <Plus />
      </IconButton>,
      'button',
    );
    expect([button.attributes['aria-label'], button.text]).toEqual(['Undo', '']);
  });
  test.each([
    [false, 'Archive “Permits”'],
    [true, 'Restore “Permits”'],
  ])('one that puts away says what it does with which thing (%s)', (isArchived, words) => {
    const button = only(<ArchiveButton name="Permits" isArchived={isArchived} onArchive={nothing} />, 'button');
    expect(button.attributes['aria-label']).toBe(words);
  });
  test('one that is pressed says so, and others say nothing of it', () => {
    expect(only(<Button pressed>Names</Button>, 'button').attributes['aria-pressed']).toBe('true');
    expect(only(<Button pressed={false}>Names</Button>, 'button').attributes['aria-pressed']).toBe('false');
    expect(only(<Button>Names</Button>, 'button').attributes).not.toHaveProperty('aria-pressed');
  });
  test('who may only look finds those that change something switched off, with the reason', () => {
    const node = (
      <RightsProvider value={false}>
        <Button changes>Remove</Button>
      </RightsProvider>
    );
    const all = drawn(node);
    expect(all.find(({ tag }) => tag === 'button')!.attributes).toHaveProperty('disabled');
    expect(all.find(({ attributes }) => attributes.title === LOOKS_ONLY)).toBeDefined();
    const other = (
      <RightsProvider value={false}>
        <Button>Look</Button>
      </RightsProvider>
    );
    expect(only(other, 'button').attributes).not.toHaveProperty('disabled');
  });
});

describe('fields', () => {
  test('a field has a label that leads to it, its help and its fault', () => {
    const all = drawn(<TextInput label="Plot number" help="As on the fence" error="Give a number." value="" onChange={nothing} />);
    const input = all.find(({ tag }) => tag === 'input')!;
    const label = all.find(({ tag }) => tag === 'label')!;
    expect(label.text).toBe('Plot number');
    expect(label.attributes.for).toBe(input.attributes.id);
    expect(input.attributes['aria-invalid']).toBe('true');
    const texts = all.map(({ text }) => text);
    expect(texts).toContain('Give a number.');
  });
  test('one whose label is not shown has a name all the same', () => {
    const input = only(<TextInput label="Search the fill sheet" hideLabel value="" onChange={nothing} />, 'input');
    expect(input.attributes['aria-label']).toBe('Search the fill sheet');
  });
  test('several lines are a text area', () =>
    expect(drawn(<TextInput label="Body" rows={5} value="x" onChange={nothing} />).some(({ tag }) => tag === 'textarea')).toBe(true));
  test('a secret is not shown, and browsers are not asked to keep it', () => {
    const input = only(<SecretInput label="Password" value="plots" isStored={false} onChange={nothing} />, 'input');
    expect(input.attributes.type).toBe('password');
    expect(input.attributes.autocomplete).not.toBe('on');
  });
  test('a switch says whether it is on', () => {
    for (const value of [true, false]) {
      const input = drawn(<Toggled label="Both sides" value={value} onChange={nothing} />).find(({ tag }) => tag === 'input')!;
      expect('checked' in input.attributes).toBe(value);
    }
  });
  test('a menu shows what is chosen, and has a name', () => {
    const all = drawn(
      <Choice
        label="Show"
        items={[
          { id: 'a', text: 'All fields' },
          { id: 'b', text: 'Open ones' },
        ]}
        value="b"
        onChange={nothing}
      />,
    );
    const button = all.find(({ tag, attributes }) => tag === 'button' && attributes['aria-haspopup'] === 'listbox')!;
    expect(button.text).toContain('Open ones');
    expect(all.some(({ text }) => text === 'Show')).toBe(true);
  });
  test('one of several ways: each with what it means and how many, one of them chosen', () => {
    const items = [
      { id: 'new', text: 'Those without a copy', figure: 12, detail: 'Nobody gets two.' },
      { id: 'all', text: 'Everybody again', figure: 480, isDisabled: true },
    ] as const;
    const all = drawn(<PickOne label="Who" items={items} value="new" onChange={nothing} />);
    const radios = all.filter(({ tag, attributes }) => tag === 'input' && attributes.type === 'radio');
    expect(radios.map(({ attributes }) => ['checked' in attributes, 'disabled' in attributes])).toEqual([
      [true, false],
      [false, true],
    ]);
    const words = all.map(({ text }) => text).join(' ');
    for (const text of ['Who', 'Those without a copy', '12', 'Nobody gets two.', '480']) expect(words).toContain(text);
  });
  test('what is offered while one types is a list with one chosen', () => {
    const all = drawn(
      <Offers
        items={[
          { slug: 'name', text: 'Name' },
          { slug: 'town', text: 'Town' },
        ]}
        chosen={1}
        onChoose={nothing}
        style={{}}
      />,
    );
    expect(
      all.filter(({ tag }) => tag === 'li').map(({ attributes, text }) => [attributes['aria-selected'], /Name|Town/.exec(text)![0]]),
    ).toEqual([
      ['false', 'Name'],
      ['true', 'Town'],
    ]);
  });
});

describe('states have words', () => {
  test('nothing here: a title, why, and what next', () => {
    const all = drawn(
      <Empty title="No field here" action={<Button>Show all</Button>}>
        Change the search.
      </Empty>,
    );
    const words = all.map(({ text }) => text).join(' ');
    for (const text of ['No field here', 'Change the search.', 'Show all']) expect(words).toContain(text);
  });
  test('waiting says what is waited for, to those who do not see it too', () => {
    const client = new QueryClient();
    const node = (
      <QueryClientProvider client={client}>
        <Loading what="the mailings" />
      </QueryClientProvider>
    );
    const status = drawn(node).find(({ attributes }) => attributes.role === 'status')!;
    expect(status.text).toBe('Reading the mailings …');
    expect(only(<Waiting>…</Waiting>, 'div').text).toBe('…');
  });
  test('what is wrong is told at once, what is to be known when there is time (WAI-ARIA, alert and status)', () => {
    expect(drawn(<Notice tone="brick">It failed</Notice>)[0]!.attributes.role).toBe('alert');
    expect(drawn(<Notice tone="ochre">Look</Notice>)[0]!.attributes.role).toBe('status');
  });
  test('a mark is its word', () => expect(only(<Mark $tone="moss">fits</Mark>, 'span').text).toBe('fits'));
  test('a screen has one heading of the first level, with what is to be known beside it', () => {
    const node = <Head title="Ledger" note="480 copies" />;
    expect(only(node, 'h1').text).toBe('Ledger');
    expect(drawn(node).some(({ text }) => text === '480 copies')).toBe(true);
  });
  test('a bar tells its parts in words, and its parts make up the whole', () => {
    const all = drawn(
      <PartsBar
        label="Batch 4"
        total={10}
        parts={[
          { name: 'sent', share: 7, color: '#000' },
          { name: 'bounced', share: 3, color: '#111' },
        ]}
      />,
    );
    const told = all.map(({ attributes }) => attributes['aria-label'] ?? '').join(' ');
    for (const text of ['Batch 4', 'sent', 'bounced', '7', '3']) expect(told).toContain(text);
  });
});

test('a part that was loaded ahead is there when it is first shown; of one that was not is said that it is being read', async () => {
  const Greeting = ({ name }: { name: string }): ReactElement => <p>Hello {name}</p>;
  const load = (): Promise<{ default: typeof Greeting }> => Promise.resolve({ default: Greeting });
  const [Late, Early] = [loadedPart(load, 'the greeting'), loadedPart(load, 'the greeting')];
  Early.ahead();
  await new Promise((done) => setImmediate(done));
  const shown = (node: ReactElement): string =>
    drawn(<QueryClientProvider client={new QueryClient()}>{node}</QueryClientProvider>)
      .map(({ text }) => text)
      .join('');
  expect(shown(<Early name="Marit" />)).toBe('Hello Marit');
  expect(shown(<Late name="Marit" />)).toBe('Reading the greeting …');
});
