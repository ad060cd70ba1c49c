import { bareWords, isGeneric } from '../page/label-words.js';
import type { Box } from '../page/page-reading.js';
import type { Field } from '../pdf/field.js';
import type { Comparison, FieldChange, FieldPair } from './comparison.js';
import type { Edition, EditionField } from './edition.js';
import { editionFields } from './edition.js';
import { labelLikeness, ownName } from './likeness.js';
import { matchPages, PageShift } from './page-shift.js';

/** Labels that are less alike ask for different things. */
const OTHER_MEANING = 0.3;
/** A pair that is worth less is none. */
const LEAST = 0.36;
/** How far a box may be off among its words and still be where it was, points. */
const STILL = 6;
/** Fields with one word of which there are more are told by other words. */
const OFTEN = 24;
/** Fields beyond this distance do not stand at the same place, points. */
const REACH = 60;

const distance = (one: Box, other: Box): number => {
  const off = (at: number): number => Math.min(Math.abs(one[at]! - other[at]!), Math.abs(one[at + 2]! - other[at + 2]!));
  return Math.hypot(off(0), off(1));
};
/** A kind as far as its values go. */
const isTick = ({ kind }: Field): boolean => kind === 'checkbox' || kind === 'radio';
const isMark = ({ kind }: Field): boolean => kind === 'signature';

interface Candidate {
  was: EditionField;
  now: EditionField;
  worth: number;
}

/** What a field is told by beside its name: its print, or a tooltip that people wrote. */
const ownLabel = ({ label, labelFrom }: Field): string | null => (labelFrom === 'name' ? null : label);

/** Beginnings of the words of a label, by which others like it are found. */
const stems = (label: string | null): Set<string> =>
  new Set(
    bareWords(label)
      .split(' ')
      .flatMap((word) => (word.length > 2 ? [word.slice(0, 4)] : [])),
  );

class Matcher {
  private readonly was: EditionField[];
  private readonly now: EditionField[];
  private readonly pages: number[];
  private readonly shifts: (PageShift | null)[];
  /** How often a label stands in an edition: what is said once tells more. */
  private readonly frequency: Map<string, number>[];
  private readonly places = new Map<EditionField, { page: number; box: Box } | null>();
  private readonly likenesses = new Map<string, number>();

  constructor(
    private readonly before: Edition,
    private readonly after: Edition,
  ) {
    this.was = editionFields(before);
    this.now = editionFields(after);
    this.pages = matchPages(before.pages, after.pages);
    this.shifts = this.pages.map((to, from) => (to === -1 ? null : new PageShift(before.pages[from]!, after.pages[to]!)));
    this.frequency = [this.was, this.now].map((fields) => {
      const counts = new Map<string, number>();
      for (const { field } of fields) counts.set(bareWords(field.label), (counts.get(bareWords(field.label)) ?? 0) + 1);
      return counts;
    });
  }

  /** Where an old box would stand now; null: its page is gone. */
  private expected(was: EditionField): { page: number; box: Box } | null {
    let place = this.places.get(was);
    if (place === undefined) {
      const to = this.pages[was.page] ?? -1;
      this.places.set(was, (place = to === -1 ? null : { page: to, box: this.shifts[was.page]!.expected(was.box) }));
    }
    return place;
  }
  private likeness(one: string | null, other: string | null): number {
    const key = `${one}\n${other}`;
    let found = this.likenesses.get(key);
    if (found === undefined) this.likenesses.set(key, (found = labelLikeness(one, other)));
    return found;
  }

  private worth(was: EditionField, now: EditionField): number {
    const [old, fresh] = [was.field, now.field];
    if (isTick(old) !== isTick(fresh) || isMark(old) !== isMark(fresh)) return 0;
    const [oldLabel, newLabel] = [ownLabel(old), ownLabel(fresh)];
    const likeness = this.likeness(oldLabel, newLabel);
    const isTold = oldLabel !== null && newLabel !== null;
    if (isTold && likeness < OTHER_MEANING) return 0;
    const place = this.expected(was);
    const off = place?.page === now.page ? distance(place.box, now.box) : Infinity;
    const near = off < STILL ? 1 : off < REACH ? 0.7 * (1 - off / REACH) : 0;
    const name = old.name === fresh.name ? 1 : ownName(old.name) === ownName(fresh.name) && !isGeneric(ownName(old.name)) ? 0.6 : 0;
    const kind = old.kind === fresh.kind ? 1 : 0;
    const section = old.section && fresh.section ? this.likeness(old.section, fresh.section) : 0.5;
    const limit = old.maxLength === fresh.maxLength ? 1 : 0;
    if (isTold) {
      const times = Math.max(this.frequency[0]!.get(bareWords(oldLabel)) ?? 1, this.frequency[1]!.get(bareWords(newLabel)) ?? 1);
      // A label that stands often says little: place, section and name decide.
      const labelWeight = times === 1 ? 0.62 : 0.36;
      const rest = (0.45 * near + 0.2 * section + 0.15 * name + 0.12 * kind + 0.08 * limit) * (1 - labelWeight);
      return likeness * labelWeight + rest;
    }
    // One of them has no words: place, then name.
    const hasLost = oldLabel === null && newLabel === null ? 1 : 0.8;
    return (0.55 * near + 0.22 * name + 0.13 * kind + 0.1 * limit) * hasLost * (near > 0.7 || name > 0 ? 1 : 0.5);
  }

  private candidates(): Candidate[] {
    const byLabel = new Map<string, EditionField[]>();
    const byName = new Map<string, EditionField[]>();
    const byPage = new Map<number, EditionField[]>();
    const add = <Key>(map: Map<Key, EditionField[]>, key: Key, one: EditionField): void =>
      void (map.get(key)?.push(one) ?? map.set(key, [one]));
    for (const one of this.now) {
      for (const word of stems(one.field.label)) add(byLabel, word, one);
      add(byName, one.field.name, one);
      add(byPage, one.page, one);
    }
    const found: Candidate[] = [];
    for (const was of this.was) {
      const place = this.expected(was);
      const options = new Set<EditionField>(byName.get(was.field.name) ?? []);
      // Words that stand everywhere find nothing; what is near the expected place is looked at all the same.
      for (const word of stems(was.field.label)) {
        const there = byLabel.get(word) ?? [];
        if (there.length <= OFTEN) for (const one of there) options.add(one);
      }
      for (const one of (place && byPage.get(place.page)) ?? []) if (distance(place!.box, one.box) < REACH) options.add(one);
      for (const now of options) {
        const worth = this.worth(was, now);
        if (worth >= LEAST) found.push({ was, now, worth });
      }
    }
    return found.sort(
      (a, b) => b.worth - a.worth || a.was.order - b.was.order || Math.abs(a.was.order - a.now.order) - Math.abs(b.was.order - b.now.order),
    );
  }

  compare(): Comparison {
    const candidates = this.candidates();
    const partner = new Map<EditionField, Candidate>();
    const taken = new Set<EditionField>();
    for (const one of candidates) {
      if (partner.has(one.was) || taken.has(one.now)) continue;
      partner.set(one.was, one);
      taken.add(one.now);
    }
    const byWas = new Map<EditionField, Candidate[]>();
    const byNow = new Map<EditionField, Candidate[]>();
    for (const one of candidates) {
      const [ofWas, ofNow] = [byWas.get(one.was), byNow.get(one.now)];
      if (ofWas) ofWas.push(one);
      else byWas.set(one.was, [one]);
      if (ofNow) ofNow.push(one);
      else byNow.set(one.now, [one]);
    }
    const pairs = this.was.flatMap((was): FieldPair[] => {
      const found = partner.get(was);
      if (!found) return [];
      // What comes near to it makes it doubtful.
      const rival = [...byWas.get(was)!.slice(0, 8), ...byNow.get(found.now)!.slice(0, 8)]
        .filter((one) => one !== found && !this.isSettled(one, partner))
        .sort((a, b) => b.worth - a.worth)[0];
      const margin = rival ? Math.min(1, (found.worth - rival.worth) * 4 + 0.4) : 1;
      return [
        {
          old: was.field.name,
          new: found.now.field.name,
          changes: this.changes(was, found.now),
          sure: Math.round(found.worth * margin * 100) / 100,
        },
      ];
    });
    return {
      pairs,
      gone: this.was.filter((one) => !partner.has(one)).map(({ field }) => field.name),
      added: this.now.filter((one) => !taken.has(one)).map(({ field }) => field.name),
      likeness: this.was.length === 0 ? 0 : pairs.length / this.was.length,
    };
  }
  /** Whether both sides of a candidate have better partners. */
  private isSettled(one: Candidate, partner: ReadonlyMap<EditionField, Candidate>): boolean {
    const other = partner.get(one.was);
    return other !== undefined && other.now !== one.now && other.worth > one.worth + 0.1;
  }

  private changes(was: EditionField, now: EditionField): FieldChange[] {
    const [old, fresh] = [was.field, now.field];
    const place = this.expected(was);
    const isMoved =
      place !== null &&
      (place.page === now.page
        ? [0, 1].some((at) => Math.min(Math.abs(place.box[at]! - now.box[at]!), Math.abs(place.box[at + 2]! - now.box[at + 2]!)) > STILL)
        : this.shifts[was.page]!.isKnown);
    const options = (field: Field): string => JSON.stringify(field.kind === 'radio' ? [field.onValues, field.options] : field.options);
    const isRequired = (field: Field): boolean => field.flags.includes('required');
    const changes: [FieldChange, boolean][] = [
      ['renamed', old.name !== fresh.name],
      ['moved', isMoved],
      ['retyped', old.kind !== fresh.kind],
      ['options', old.kind === fresh.kind && options(old) !== options(fresh)],
      ['limit', old.maxLength !== fresh.maxLength],
      ['page', was.page !== now.page],
      ['required', isRequired(old) !== isRequired(fresh)],
    ];
    return changes.filter(([, is]) => is).map(([change]) => change);
  }
}

/** Compares two editions of a form field by field: by what is printed, by place among the words, by name, kind and section together. */
export const compareEditions = (before: Edition, after: Edition): Comparison => new Matcher(before, after).compare();
