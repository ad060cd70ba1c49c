import { saidWords, remarks } from '@mailbag/core';
import type { RemarkCode, Said } from '@mailbag/core';
import { ValidateBy } from 'class-validator';

const isSaid = (value: unknown): boolean => {
  if (typeof value === 'string') return true;
  const { code, fields } = (value ?? {}) as { code?: string; fields?: unknown };
  return (
    code !== undefined &&
    Object.hasOwn(remarks, code) &&
    typeof fields === 'object' &&
    saidWords({ code: code as RemarkCode, fields } as Said) !== ''
  );
};

/** Somebody's own words, or a remark of the catalogue. */
export const IsSaid = (): PropertyDecorator =>
  ValidateBy({
    name: 'isSaid',
    validator: { validate: isSaid, defaultMessage: (part) => `${part?.property ?? 'it'} is neither words nor a known remark` },
  });
