import { copyStates } from '@mailbag/core';
import { renderToStaticMarkup } from 'react-dom/server';
import { stateParts } from './state-parts';
import { StateMark, stateLooks } from './state-mark';

test.each(copyStates.map((state) => [state]))(
  '“%s” is told by its word and by a picture of its own, never by its colour alone',
  (state) => {
    const html = renderToStaticMarkup(<StateMark state={state} />);
    expect(html).toContain(state);
    expect(html).toMatch(/<svg/);
    const twins = copyStates.filter((other) => other !== state && stateLooks[other].icon === stateLooks[state].icon);
    expect(twins).toEqual([]);
  },
);

test('a state that a newer server knows does not break the screen', () => {
  expect(renderToStaticMarkup(<StateMark state={'archived' as never} />)).toContain('archived');
});

test('the parts of a bar make up all copies that have come farther than being planned, in the same order whatever order they come in', () => {
  const begun = copyStates.filter((state) => state !== 'planned');
  const counts = Object.fromEntries(begun.map((state, at) => [state, at + 1]));
  const parts = stateParts(counts);
  expect(parts.map(({ name }) => name).sort()).toEqual([...begun].sort());
  expect(parts.reduce((sum, { share }) => sum + share, 0)).toBe(begun.reduce((sum, _, at) => sum + at + 1, 0));
  expect(stateParts(Object.fromEntries(Object.entries(counts).reverse())).map(({ name }) => name)).toEqual(parts.map(({ name }) => name));
});
