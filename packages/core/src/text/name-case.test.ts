import { nameCase } from './name-case.js';

// Common practice, no source.
test.each([
  ['ANNA VAN DER BERG', 'Anna van der Berg'],
  ['VAN DER BERG', 'Van der Berg'],
  ["o'neill", "O'Neill"],
  ['SEAN MCDONALD', 'Sean McDonald'],
  ['MACDONALD', 'MacDonald'],
  ['MACK', 'Mack'],
  ['macey', 'Macey'],
  ['jean-luc DE LA tour', 'Jean-Luc de la Tour'],
  ['HEINRICH VIII', 'Heinrich VIII'],
  ['karl-heinz zu guttenberg', 'Karl-Heinz zu Guttenberg'],
  ['ÅSA ÖBERG', 'Åsa Öberg'],
  ['СЕРГІЙ ГОНЧАР', 'Сергій Гончар'],
  ['DeShawn McCoy', 'DeShawn McCoy'],
  ['', ''],
  ['山田 太郎', '山田 太郎'],
])('%s is %s', (given, name) => {
  expect(nameCase(given)).toBe(name);
});
