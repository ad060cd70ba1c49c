import { detailText, remarks } from '@mailbag/core';
import type { RemarkCode, Detail } from '@mailbag/core';
import { ValidateBy } from 'class-validator';

const isDetail = (value: unknown): boolean => {
  if (typeof value === 'string') return true;
  const { code, fields } = (value ?? {}) as { code?: string; fields?: unknown };
  return (
    code !== undefined &&
    Object.hasOwn(remarks, code) &&
    typeof fields === 'object' &&
    detailText({ code: code as RemarkCode, fields } as Detail) !== ''
  );
};

/** Somebody's own words, or a remark of the catalogue. */
export const IsDetail = (): PropertyDecorator =>
  ValidateBy({
    name: 'isDetail',
    validator: { validate: isDetail, defaultMessage: (part) => `${part?.property ?? 'it'} is neither words nor a known remark` },
  });
