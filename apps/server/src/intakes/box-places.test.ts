import { dateBeside, withinPage } from './box-places.js';

const page = { width: 600, height: 800 };

test('the date stands right of a signature, left of it where there is no room, and below it where there is none on either side', () => {
  expect(dateBeside({ left: 50, top: 700, right: 220, bottom: 740 }, page)).toEqual({ left: 228, top: 724, right: 308, bottom: 740 });
  expect(dateBeside({ left: 400, top: 700, right: 580, bottom: 740 }, page)).toEqual({ left: 312, top: 724, right: 392, bottom: 740 });
  expect(dateBeside({ left: 20, top: 700, right: 590, bottom: 740 }, page)).toEqual({ left: 20, top: 748, right: 100, bottom: 764 });
});

test('a box that was drawn over the edge, or on a larger page, lies on its page', () => {
  expect(withinPage({ left: 550, top: -20, right: 650, bottom: 20 }, page)).toEqual({ left: 500, top: 0, right: 600, bottom: 40 });
  expect(withinPage({ left: 0, top: 0, right: 900, bottom: 900 }, page)).toEqual({ left: 0, top: 0, right: 600, bottom: 800 });
});
