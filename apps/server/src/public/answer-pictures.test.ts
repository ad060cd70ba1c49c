import sharp from 'sharp';
import { pictureAnew } from './answer-pictures.js';

const grey = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#888' } });
const told = { IFD0: { Make: 'A device', Copyright: 'Somebody' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } };

test.each(['jpeg', 'png'] as const)('where and with what a %s was taken is gone, and the picture is the same', async (format) => {
  const sent = new Uint8Array(await grey(40, 20).withExif(told).toFormat(format).toBuffer());
  expect((await sharp(sent).metadata()).exif).toBeDefined();
  const kept = await pictureAnew(sent);
  const { exif, xmp, iptc, format: own, width, height } = await sharp(kept).metadata();
  expect([exif, xmp, iptc, own, width, height]).toEqual([undefined, undefined, undefined, format, 40, 20]);
  expect(Buffer.from(kept).toString('latin1')).not.toMatch(/A device|Somebody/);
  expect((await sharp(kept).raw().toBuffer())[0]).toBeCloseTo(0x88, -1);
});

test('what an image viewer turns by its metadata is turned for good (Exif 2.32, 4.6.4 Orientation)', async () => {
  const { width, height } = await sharp(
    await pictureAnew(await grey(40, 20).withMetadata({ orientation: 6 }).jpeg().toBuffer()),
  ).metadata();
  expect([width, height]).toEqual([20, 40]);
});

test('a signature stays without a ground', async () => {
  const drawn = await sharp({ create: { width: 10, height: 10, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } }).png().toBuffer(); // prettier-ignore
  expect((await sharp(await pictureAnew(drawn)).stats()).isOpaque).toBe(false);
});

test('what hides behind a picture is not kept', async () => {
  const page = Buffer.concat([await grey(10, 10).png().toBuffer(), Buffer.from('<script>alert(1)</script>')]);
  expect(Buffer.from(await pictureAnew(page)).toString('latin1')).not.toContain('script');
});

test('no picture, a broken one, and one that says it has very many pixels, are refused', async () => {
  const broken = (await grey(200, 200).jpeg().toBuffer()).subarray(0, 300);
  const huge = await sharp({ create: { width: 7000, height: 7000, channels: 3, background: '#fff' } }).png().toBuffer(); // prettier-ignore
  for (const bytes of [Buffer.from('%PDF-1.7'), Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'), broken, huge])
    await expect(pictureAnew(bytes)).rejects.toThrow();
});
