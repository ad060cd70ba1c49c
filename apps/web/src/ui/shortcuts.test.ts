import { Shortcuts } from './shortcuts';

const storage = (): Pick<Storage, 'getItem' | 'setItem'> => {
  const stored = new Map<string, string>();
  return { getItem: (key) => stored.get(key) ?? null, setItem: (key, value) => void stored.set(key, value) };
};

test('what is on the screen tells its shortcuts, those of the screen first, and takes them along when it goes', () => {
  const all = new Shortcuts(storage());
  all.add([{ keys: 'Ctrl K', what: 'Find', isEverywhere: true }]);
  const gone = all.add([{ keys: 'W', what: 'Worst case' }]);
  expect(all.all.map(({ keys }) => keys)).toEqual(['W', 'Ctrl K']);
  gone();
  expect(all.all.map(({ keys }) => keys)).toEqual(['Ctrl K']);
});

test('what two parts of a screen share stands there once, also after one of them has gone', () => {
  const all = new Shortcuts(storage());
  const undo = { keys: 'Ctrl Z', what: 'Undo' };
  const one = all.add([undo]);
  all.add([undo]);
  expect(all.all).toEqual([undo]);
  one();
  expect(all.all).toEqual([undo]);
});

test('single letters are on, and stay off for this browser once they are switched off', () => {
  const store = storage();
  const all = new Shortcuts(store);
  const told = jest.fn();
  all.subscribe(told);
  expect(all.areLettersOn).toBe(true);
  all.switchLetters(false);
  expect(told).toHaveBeenCalledTimes(1);
  expect(new Shortcuts(store).areLettersOn).toBe(false);
  // Where nothing can be kept they are on.
  expect(new Shortcuts(null).areLettersOn).toBe(true);
});
