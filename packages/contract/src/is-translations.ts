import { isTranslations } from '@mailbag/core';
import { ValidateBy } from 'class-validator';

/** See core's `PageTranslations`. */
export const IsTranslations = (): PropertyDecorator =>
  ValidateBy({
    name: 'isTranslations',
    validator: { validate: isTranslations, defaultMessage: (part) => `${part?.property ?? 'it'} is no texts by the languages of a page` },
  });
