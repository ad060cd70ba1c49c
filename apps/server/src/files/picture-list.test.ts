import { pictureName, pictureOf } from './picture-list.js';

const list = new Map([
  ['ada.jpg', 'a'],
  ['bo.png', 'b'],
  ['zo\u00eb.jpeg', 'z'],
  ['v1.2', 'v'],
]);

test.each([
  ['as it is', 'ada.jpg', 'a'],
  ['without its ending', 'ada', 'a'],
  ['in capitals', 'ADA.JPG', 'a'],
  ['with the folders of another system', 'C:\\photos\\2027\\Bo.png', 'b'],
  ['with folders and blanks around it', ' photos/bo ', 'b'],
  ['with a letter and its mark apart', 'Zoe\u0308', 'z'],
  ['with a dot that is no ending', 'v1.2', 'v'],
  ['of nobody', 'cy.png', undefined],
  ['with another ending', 'ada.png', undefined],
  ['that is a part of one', 'ad', undefined],
  ['of something that every object has', 'constructor', undefined],
])('a picture is found by a name %s', (_, name, digest) => expect(pictureOf(list, name)).toBe(digest));

test('names are compared without folders', () => expect(pictureName('Photos/Summer/ADA.PNG')).toBe('ada.png'));
