import { changedQuery } from './use-address';

test('changes stand in the query beside what stood there, and what is taken out is gone', () => {
  expect(changedQuery('?record=4&field=permit.name', { record: 5 })).toBe('?record=5&field=permit.name');
  expect(changedQuery('?record=4&field=permit.name', { field: null })).toBe('?record=4');
  expect(changedQuery('?record=4', { record: null })).toBe('');
  expect(changedQuery('', { text: '', down: false, sort: 'row' })).toBe('?sort=row');
  expect(changedQuery('', { down: true })).toBe('?down=yes');
});

test('a value with signs of an address comes back as it was', () => {
  const value = 'Straße & “no. 5” = ½?';
  expect(new URLSearchParams(changedQuery('', { column: value })).get('column')).toBe(value);
});
