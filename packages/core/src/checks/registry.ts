import type { CheckKind, FindingWords } from './check.js';
import type { Finding } from './finding.js';
import { address, otherAddress } from './kinds/address.js';
import { allowed } from './kinds/allowed.js';
import { capitals } from './kinds/capitals.js';
import { control } from './kinds/control.js';
import { date } from './kinds/date.js';
import { domain } from './kinds/domain.js';
import { fit } from './kinds/fit.js';
import { format } from './kinds/format.js';
import { iban } from './kinds/iban.js';
import { key } from './kinds/key.js';
import { length } from './kinds/length.js';
import { mixedUp } from './kinds/mixed-up.js';
import { numberText } from './kinds/number-text.js';
import { phone } from './kinds/phone.js';
import { postalCode } from './kinds/postal-code.js';
import { range } from './kinds/range.js';
import { requiredColumn } from './kinds/required-column.js';
import { required } from './kinds/required.js';
import { samePerson } from './kinds/same-person.js';
import { shape } from './kinds/shape.js';
import { space } from './kinds/space.js';
import { translation } from './kinds/translation.js';
import { unique } from './kinds/unique.js';
import { zeros } from './kinds/zeros.js';
import { password } from './kinds/password.js';

/** Every check, in the order in which they are offered. A new one is a file in kinds/ and a line here. */
export const checkKinds: Readonly<Record<string, CheckKind>> = {
  key,
  address,
  requiredColumn,
  unique,
  otherAddress,
  domain,
  phone,
  postalCode,
  iban,
  date,
  numberText,
  zeros,
  space,
  control,
  capitals,
  shape,
  range,
  allowed,
  mixedUp,
  samePerson,
  translation,
  required,
  length,
  format,
  fit,
  password,
};

const words = new Map<string, FindingWords>(Object.values(checkKinds).flatMap(({ findings }) => Object.entries(findings)));

/** The kind of finding, as a heading. One of a check that is there no more is named by its code. */
export const findingTitle = (code: string): string => words.get(code)?.title ?? code;

/** What a finding says of its record: what is wrong and what to do. */
export const findingSentence = (finding: Finding): string => words.get(finding.code)?.sentence(finding) ?? findingTitle(finding.code);
