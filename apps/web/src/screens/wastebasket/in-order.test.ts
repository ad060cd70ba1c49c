import { inOrder } from './in-order';

const picked = [{ kind: 'template' }, { kind: 'mailing' }, { kind: 'source' }, { kind: 'intake' }] as const;
const kinds = (isBack: boolean): string[] => inOrder(picked, isBack).map(({ kind }) => kind);

test('a mailing is deleted for good before the template that it needs, whichever was deleted first', () =>
  expect(kinds(false)).toEqual(['intake', 'mailing', 'source', 'template']));

test('what a mailing needs is put back before it, which would bring it along', () =>
  expect(kinds(true)).toEqual(['template', 'source', 'mailing', 'intake']));
