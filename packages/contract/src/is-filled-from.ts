import { isFilledFrom } from '@mailbag/core';
import { ValidateBy } from 'class-validator';

/** See core's `FilledFrom`. */
export const IsFilledFrom = (): PropertyDecorator =>
  ValidateBy({
    name: 'isFilledFrom',
    validator: { validate: isFilledFrom, defaultMessage: (part) => `${part?.property ?? 'it'} does not say how a question is filled` },
  });
