/** What JSON can hold. */
export type Json = null | boolean | number | string | Json[] | { [name: string]: Json };

/** Where in a document: names of members from the root. */
export type Place = readonly string[];

/**
 * One small change of a document, in a form in which it can be made in a version that others have changed meanwhile.
 * `set`: what stood there, and what is to stand there; undefined: nothing. `insert` and `remove` are for lists in which everything stands once;
 * `after`: what it follows, null: it is the first. `order`: the same entries in another order. `make`: an object, unless there is one; `unmake`: none, if it is empty.
 */
export type Change =
  | { kind: 'set'; place: Place; was?: Json | undefined; is?: Json | undefined }
  | { kind: 'insert' | 'remove'; place: Place; value: Json; after: Json | null }
  | { kind: 'order'; place: Place; was: Json[]; is: Json[] }
  | { kind: 'make'; place: Place }
  | { kind: 'unmake'; place: Place };

const isPlace = (place: unknown): boolean =>
  Array.isArray(place) && place.length <= 12 && place.every((name) => typeof name === 'string' && name.length <= 500);

/** Whether something that came from outside has the shape of a change. */
export function isChange(given: unknown): given is Change {
  const { kind, place, value, after, was, is } = (given ?? {}) as Record<string, unknown>;
  if (!isPlace(place)) return false;
  if (kind === 'set' || kind === 'make' || kind === 'unmake') return true;
  if (kind === 'insert' || kind === 'remove') return value !== undefined && after !== undefined;
  return kind === 'order' && Array.isArray(was) && Array.isArray(is);
}

/** A change that cannot be made, because what it changes is not what it was. */
export interface Clash {
  place: Place;
  /** What was wanted, and what stands there now. */
  mine: Json | undefined;
  theirs: Json | undefined;
}

/** Says which places are changed as a whole: what lies below makes no sense by itself. */
export type IsWhole = (place: Place) => boolean;

const isObject = (value: Json | undefined): value is { [name: string]: Json } =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Whether two values say the same. The order of members makes no difference, and a member that is undefined is not there. */
export function same(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((one, index) => same(one, b[index]));
  if (!isObject(a) || !isObject(b)) return false;
  const names = Object.keys(a).filter((name) => a[name] !== undefined);
  return (
    names.length === Object.keys(b).filter((name) => b[name] !== undefined).length &&
    names.every((name) => Object.hasOwn(b, name) && same(a[name], b[name]))
  );
}

const isAmong = (list: readonly Json[], value: Json): boolean => list.some((one) => same(one, value));
const isSet = (list: readonly Json[]): boolean => list.every((one, index) => list.findIndex((other) => same(one, other)) === index);
/** The entry in front of another; null: it is the first. */
const before = (list: readonly Json[], index: number): Json | null => (index > 0 ? list[index - 1]! : null);

function changesOfList(was: Json[], is: Json[], place: Place): Change[] {
  if (!isSet(was) || !isSet(is)) return [{ kind: 'set', place, was, is }];
  const changes: Change[] = [];
  // What each change follows is there at its turn, also when all of them are taken back from the last to the first.
  let now = was;
  const make = (change: Extract<Change, { kind: 'insert' | 'remove' }>): void => {
    changes.push(change);
    now = listWith(now, change);
  };
  for (const value of was)
    if (!isAmong(is, value)) {
      const index = now.findIndex((one) => same(one, value));
      make({ kind: 'remove', place, value, after: before(now, index) });
    }
  is.forEach((value, index) => {
    if (!isAmong(was, value)) make({ kind: 'insert', place, value, after: before(is, index) });
  });
  if (!same(now, is)) changes.push({ kind: 'order', place, was: now, is });
  return changes;
}

/** What leads from one version of a document to another, as small as it can be said. */
export function changesBetween(was: Json | undefined, is: Json | undefined, isWhole: IsWhole, place: Place = []): Change[] {
  if (same(was, is)) return [];
  if (!isWhole(place)) {
    if (was === undefined && isObject(is)) return [{ kind: 'make', place }, ...changesBetween({}, is, isWhole, place)];
    if (isObject(was) && is === undefined) return [...changesBetween(was, {}, isWhole, place), { kind: 'unmake', place }];
    if (isObject(was) && isObject(is))
      return [...new Set([...Object.keys(was), ...Object.keys(is)])].flatMap((name) =>
        changesBetween(Object.hasOwn(was, name) ? was[name] : undefined, Object.hasOwn(is, name) ? is[name] : undefined, isWhole, [
          ...place,
          name,
        ]),
      );
    if (Array.isArray(was) && Array.isArray(is)) return changesOfList(was, is, place);
  }
  return [{ kind: 'set', place, was, is }];
}

/** What takes a change back. */
export function inverse(change: Change): Change {
  switch (change.kind) {
    case 'insert':
      return { ...change, kind: 'remove' };
    case 'remove':
      return { ...change, kind: 'insert' };
    case 'make':
      return { ...change, kind: 'unmake' };
    case 'unmake':
      return { ...change, kind: 'make' };
    case 'set':
      return { ...change, was: change.is, is: change.was };
    case 'order':
      return { ...change, was: change.is, is: change.was };
  }
}
/** What takes changes back that were made one after the other. */
export const inverseOf = (changes: readonly Change[]): Change[] => changes.map(inverse).reverse();

/** The value at a place; undefined: there is nothing. */
export function valueAt(document: Json, place: Place): Json | undefined {
  let value: Json | undefined = document;
  for (const name of place) value = isObject(value) && Object.hasOwn(value, name) ? value[name] : undefined;
  return value;
}

/** The document with another value at a place; its parents must be there. Undefined takes the member away. */
function withValue(document: Json, [name, ...rest]: Place, value: Json | undefined): Json {
  if (name === undefined) return value ?? null;
  const members = document as { [name: string]: Json };
  const next = rest.length === 0 ? value : withValue(members[name]!, rest, value);
  if (next !== undefined) return { ...members, [name]: next };
  return Object.fromEntries(Object.entries(members).filter(([own]) => own !== name));
}

function listWith(list: readonly Json[], change: Extract<Change, { kind: 'insert' | 'remove' | 'order' }>): Json[] {
  if (change.kind === 'order') {
    const known = change.is.filter((value) => isAmong(list, value));
    return [...known, ...list.filter((value) => !isAmong(known, value))];
  }
  const rest = list.filter((value) => !same(value, change.value));
  if (change.kind === 'remove') return rest;
  if (rest.length < list.length) return [...list];
  const { after } = change;
  const index = after === null ? 0 : rest.findIndex((value) => same(value, after)) + 1;
  // What it followed is gone: it comes last.
  return after !== null && index === 0 ? [...rest, change.value] : [...rest.slice(0, index), change.value, ...rest.slice(index)];
}

/**
 * Makes changes in a version in which others may have changed something. Lists take both sides' entries; a value is set where it is what it was, or what it
 * is to be already. Everything else is a clash, and leaves what stands there.
 */
export function withChanges(document: Json, changes: readonly Change[]): { document: Json; clashes: Clash[] } {
  const clashes: Clash[] = [];
  let now = document;
  for (const change of changes) {
    const { place } = change;
    const there = valueAt(now, place);
    const hasParent = place.length === 0 || isObject(valueAt(now, place.slice(0, -1)));
    if (change.kind === 'make' || change.kind === 'unmake') {
      // What cannot be made shows in the changes below it.
      if (change.kind === 'make' && hasParent && (there === undefined || there === null)) now = withValue(now, place, {});
      else if (change.kind === 'unmake' && same(there, {})) now = withValue(now, place, undefined);
      continue;
    }
    if (change.kind !== 'set') {
      if (Array.isArray(there)) now = withValue(now, place, listWith(there, change));
      else clashes.push({ place, mine: change.kind === 'order' ? change.is : [change.value], theirs: there });
      continue;
    }
    if (same(there, change.is)) continue;
    if (hasParent && same(there, change.was)) now = withValue(now, place, change.is);
    else clashes.push({ place, mine: change.is, theirs: there });
  }
  return { document: now, clashes };
}
