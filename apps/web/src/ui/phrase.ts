import { Plural, partsOf } from '@mailbag/core/words';
import type { ReactNode } from 'react';
import { Fragment, createElement } from 'react';

/** A message with elements in it, in the language that is spoken: phrase`Write to ${<b>{name}</b>}.` */
export const phrase = (strings: TemplateStringsArray, ...values: readonly (ReactNode | Plural)[]): ReactNode =>
  createElement(Fragment, null, ...partsOf(strings, values).map((part) => (part instanceof Plural ? String(part) : (part as ReactNode))));
