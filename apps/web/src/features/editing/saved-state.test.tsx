/** @jest-environment ./testing/browser-environment.mjs */
import { act, render, screen } from '@testing-library/react';
import type { Saving } from './document-desk';
import { SavedState } from './saved-state';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

const saving = (state: Saving['state']): Saving => ({ state }) as Saving;
/** What has been heard, each time that it was something else. */
function heardIn(states: readonly (readonly [state: Saving['state'], ms: number])[]): string[] {
  const view = render(<SavedState saving={saving('saved')} />);
  const heard: string[] = [];
  for (const [state, ms] of states) {
    view.rerender(<SavedState saving={saving(state)} />);
    act(() => void jest.advanceTimersByTime(ms));
    const now = screen.getByRole('status').textContent;
    if (now !== '' && now !== heard.at(-1)) heard.push(now);
  }
  view.unmount();
  return heard;
}

test('a document that is only looked at says nothing', () => expect(heardIn([['saved', 60_000]])).toEqual([]));

test('letter after letter is typed: that all is saved is heard once, when it is', () => {
  const typing = Array.from({ length: 10 }, (): [Saving['state'], number][] => [
    ['saving', 300],
    ['saved', 300],
  ]).flat();
  expect(heardIn(typing)).toEqual([]);
  expect(heardIn([...typing, ['saved', 3000]])).toEqual(['All changes are saved.']);
});

test('what cannot be saved is heard at once, and that it is saved after all', () =>
  expect(
    heardIn([
      ['saving', 100],
      ['failed', 0],
      ['saving', 100],
      ['saved', 3000],
    ]),
  ).toEqual(['Not saved', 'All changes are saved.']));

test('every change is seen', () => {
  const { rerender } = render(<SavedState saving={saving('saving')} label="Message" />);
  expect(screen.getByText('Message: Saving …')).toBeTruthy();
  rerender(<SavedState saving={saving('saved')} label="Message" />);
  expect(screen.getByText('Message: Saved')).toBeTruthy();
});
