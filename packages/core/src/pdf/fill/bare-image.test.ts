import { decode } from 'fast-png';
import { bareImage } from './bare-image.js';
import { readImage } from './image.js';

const bytesOf = (...base64: string[]): Uint8Array => new Uint8Array(Buffer.from(base64.join(''), 'base64'));
/** Pictures as libvips 8.18 writes them, with who owns them, with what and where they were taken. */
const taken = {
  baseline: bytesOf(
    '/9j/4QEqRXhpZgAASUkqAAgAAAAJAA8BAgAJAAAAlAAAABIBAwABAAAAAQAAABoBBQABAAAAegAAABsBBQABAAAAggAAACgBAwABAAAAAgAAABMCAwABAAAAAQAAAJiCAgAJAAAAigAAAGmHBAABAA',
    'AAngAAACWIBAABAAAA7AAAAAAAAAA4YwAA6AMAADhjAADoAwAAU29tZWJvZHkAAEEgZGV2aWNlAAAGAACQBwAEAAAAMDIxMAGRBwAEAAAAAQIDAACgBwAEAAAAMDEwMAGgAwABAAAA//8AAAKgBAAB',
    'AAAABAAAAAOgBAABAAAABAAAAAAAAAACAAEAAgACAAAATgAAAAIABQADAAAACgEAAAAAAAAzAAAAAQAAAB4AAAABAAAAAAAAAAEAAAD/2wBDAA0JCgsKCA0LCgsODg0PEyAVExISEyccHhcgLikxMC',
    '4pLSwzOko+MzZGNywtQFdBRkxOUlNSMj5aYVpQYEpRUk//2wBDAQ4ODhMREyYVFSZPNS01T09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT0//wAARCAAEAAQD',
    'ASIAAhEBAxEB/8QAFQABAQAAAAAAAAAAAAAAAAAAAAb/xAAbEAACAgMBAAAAAAAAAAAAAAAAAQIGAwQRIf/EABQBAQAAAAAAAAAAAAAAAAAAAAD/xAAUEQEAAAAAAAAAAAAAAAAAAAAA/9oADAMBAA',
    'IRAxEAPwCkpDeGr6kYeJroAA//2Q==',
  ),
  progressive: bytesOf(
    '/9j/4QEqRXhpZgAASUkqAAgAAAAJAA8BAgAJAAAAlAAAABIBAwABAAAAAQAAABoBBQABAAAAegAAABsBBQABAAAAggAAACgBAwABAAAAAgAAABMCAwABAAAAAQAAAJiCAgAJAAAAigAAAGmHBAABAA',
    'AAngAAACWIBAABAAAA7AAAAAAAAAA4YwAA6AMAADhjAADoAwAAU29tZWJvZHkAAEEgZGV2aWNlAAAGAACQBwAEAAAAMDIxMAGRBwAEAAAAAQIDAACgBwAEAAAAMDEwMAGgAwABAAAA//8AAAKgBAAB',
    'AAAABAAAAAOgBAABAAAABAAAAAAAAAACAAEAAgACAAAATgAAAAIABQADAAAACgEAAAAAAAAzAAAAAQAAAB4AAAABAAAAAAAAAAEAAAD/2wBDAA0JCgsKCA0LCgsODg0PEyAVExISEyccHhcgLikxMC',
    '4pLSwzOko+MzZGNywtQFdBRkxOUlNSMj5aYVpQYEpRUk//2wBDAQ4ODhMREyYVFSZPNS01T09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT0//wgARCAAEAAQD',
    'ASIAAhEBAxEB/8QAFQABAQAAAAAAAAAAAAAAAAAAAAX/xAAUAQEAAAAAAAAAAAAAAAAAAAAA/9oADAMBAAIQAxAAAAGkD//EABUQAQEAAAAAAAAAAAAAAAAAAAQh/9oACAEBAAEFAhQv/8QAFBEBAA',
    'AAAAAAAAAAAAAAAAAAAP/aAAgBAwEBPwF//8QAFBEBAAAAAAAAAAAAAAAAAAAAAP/aAAgBAgEBPwF//8QAFRABAQAAAAAAAAAAAAAAAAAAAAL/2gAIAQEABj8Cl//EABYQAAMAAAAAAAAAAAAAAAAA',
    'AAABIf/aAAgBAQABPyGaj//aAAwDAQACAAMAAAAQA//EABQRAQAAAAAAAAAAAAAAAAAAAAD/2gAIAQMBAT8Qf//EABQRAQAAAAAAAAAAAAAAAAAAAAD/2gAIAQIBAT8Qf//EABcQAQADAAAAAAAAAA',
    'AAAAAAAAEAESH/2gAIAQEAAT8QbhRLn//Z',
  ),
  png: bytesOf(
    'iVBORw0KGgoAAAANSUhEUgAAAAQAAAAECAIAAAAmkwkpAAABImVYSWZJSSoACAAAAAkADwECAAkAAACUAAAAEgEDAAEAAAABAAAAGgEFAAEAAAB6AAAAGwEFAAEAAACCAAAAKAEDAAEAAAACAAAAEw',
    'IDAAEAAAABAAAAmIICAAkAAACKAAAAaYcEAAEAAACeAAAAJYgEAAEAAADsAAAAAAAAADhjAADoAwAAOGMAAOgDAABTb21lYm9keQAAQSBkZXZpY2UAAAYAAJAHAAQAAAAwMjEwAZEHAAQAAAABAgMA',
    'AKAHAAQAAAAwMTAwAaADAAEAAAD//wAAAqAEAAEAAAAEAAAAA6AEAAEAAAAEAAAAAAAAAAIAAQACAAIAAABOAAAAAgAFAAMAAAAKAQAAAAAAADMAAAABAAAAHgAAAAEAAAAAAAAAAQAAAIcafa8AAA',
    'AJcEhZcwAAA+gAAAPoAbV7UmsAAAA7SURBVAiZBcEhAgAwBAXQn2XZmZZleWeS5WXHkWXF3gOAc4677y6ISFUjYmbAzGb23utuiMi9NzOr6gM+exjK76ulbwAAAABJRU5ErkJggg==',
  ),
};
const words = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');

test.each(Object.entries(taken))('who, where and with what a %s was taken is gone, and it is the same picture', (_, sent) => {
  expect(words(sent)).toMatch(/A device/);
  const kept = bareImage(sent);
  expect(words(kept)).not.toMatch(/A device|Somebody|Exif|eXIf/);
  const [before, after] = [readImage(sent, 'a'), readImage(kept, 'b')];
  expect([after.width, after.height, after.entries]).toEqual([before.width, before.height, before.entries]);
  expect(bareImage(kept)).toEqual(kept);
});

test('the pixels of a PNG are those that it had, as another reader sees them', () => {
  expect(decode(bareImage(taken.png)).data).toEqual(decode(taken.png).data);
});

test('of a JPEG, every table and every scan stays byte for byte', () => {
  for (const sent of [taken.baseline, taken.progressive]) {
    const kept = words(bareImage(sent));
    // From the first table of quantisation to the end (ITU-T T.81, B.2.4.1), there is nothing but the picture.
    const from = words(sent).indexOf('\xff\xdb');
    expect(kept.endsWith(words(sent).slice(from))).toBe(true);
  }
});

test('a comment, and what hides behind the end, are gone; a restart within a scan and a stuffed zero are not an end', () => {
  const { baseline } = taken;
  const comment = [0xff, 0xfe, 0, 6, ...Buffer.from('psst')];
  const told = Uint8Array.from([...baseline.subarray(0, 2), ...comment, ...baseline.subarray(2), ...Buffer.from('<script>')]);
  expect(bareImage(told)).toEqual(bareImage(baseline));
  const scan = words(baseline).lastIndexOf('\xff\xda') + 10;
  const restarted = Uint8Array.from([...baseline.subarray(0, scan), 1, 0xff, 0, 2, 0xff, 0xd0, 3, ...baseline.subarray(scan)]);
  expect(words(bareImage(restarted))).toContain('\x01\xff\x00\x02\xff\xd0\x03');
});

test.each([
  ['a PDF', Buffer.from('%PDF-1.7')],
  ['an SVG', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')],
  ['a JPEG without its end', taken.baseline.subarray(0, -2)],
  ['a JPEG whose segment is longer than it', Uint8Array.from([...taken.baseline.subarray(0, 2), 0xff, 0xfe, 0xff, 0xff])],
  ['a PNG without its end', taken.png.subarray(0, -12)],
])('%s is no picture', (_, bytes) => expect(() => bareImage(Uint8Array.from(bytes))).toThrow(/picture/));
