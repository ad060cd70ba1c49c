/** What the two ends of a ring share: positions in units of eight bytes, which run on and wrap at 32 bits, and whether it has failed or ended. */
export const [WRITTEN, READ, FAILED, ENDED] = [0, 1, 2, 3] as const;
export const UNIT = 8;
/** Numbers before each entry: units in all, the base, bytes of the path, bytes of the copy's own part. */
export const HEAD = 4 * Uint32Array.BYTES_PER_ELEMENT;
/** In place of a base: nothing more stands before the end of the ring. */
export const SKIP = 0xffff_ffff;
/** In place of a base: the copy shares nothing. */
export const NO_BASE = 0;

/** Copies on their way to the thread that writes them. One end writes, the other reads. */
export interface Ring {
  control: Int32Array;
  bytes: Uint8Array;
  numbers: Uint32Array;
  /** Units in all. */
  size: number;
}
export const ringOf = ({ control, data }: RingMemory): Ring => ({
  control: new Int32Array(control),
  bytes: new Uint8Array(data),
  numbers: new Uint32Array(data),
  size: data.byteLength / UNIT,
});

export interface RingMemory {
  control: SharedArrayBuffer;
  data: SharedArrayBuffer;
}
/** Where a position stands in the ring. The size divides the range of positions. */
export const placeOf = ({ size }: Ring, position: number): number => (position >>> 0) % size;

export interface WriteFailure {
  path: string;
  code: string;
  message: string;
}
