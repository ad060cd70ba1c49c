import type { SurveyAnswer, TemplateDetail } from '@mailbag/contract';
import type { Field } from '@mailbag/core';
import { worstCase } from './worst-case';

const option = (value: string): Field['options'][number] => ({ value, label: value });
const template = {
  id: 1,
  fieldList: [
    { name: 'name', kind: 'text' },
    { name: 'shed', kind: 'checkbox' },
    { name: 'days', kind: 'list', options: [option('Mon'), option('Mon, early'), option('Tue')] },
  ],
} as unknown as TemplateDetail;
const survey = (longest: Record<string, string | null>): SurveyAnswer =>
  ({
    fields: Object.entries(longest).map(([field, value]) => ({
      template: 1,
      field,
      longest: value === null ? null : { value, index: 0 },
    })),
  }) as unknown as SurveyAnswer;

test('the longest of each field makes a record that nobody has', () => {
  expect(worstCase(survey({ name: 'Ayumi Maximiliane', shed: 'true', gone: 'x' }), template)).toEqual({
    name: 'Ayumi Maximiliane',
    shed: true,
  });
  expect(worstCase(survey({ name: null, shed: null }), template)).toEqual({});
});

test('options that hold commas stay whole', () => {
  expect(worstCase(survey({ days: 'Mon, early, Tue' }), template).days).toEqual(['Mon, early', 'Tue']);
  expect(worstCase(survey({ days: 'Mon, Tue' }), template).days).toEqual(['Mon', 'Tue']);
  expect(worstCase(survey({ days: 'Sun, Tue' }), template).days).toEqual(['Sun', 'Tue']);
});
