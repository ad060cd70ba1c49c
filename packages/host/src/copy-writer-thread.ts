import { receiveMessageOnPort, workerData } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import { writeCopy } from './write-copy.js';
import { ENDED, FAILED, HEAD, NO_BASE, READ, SKIP, UNIT, WRITTEN, placeOf, ringOf } from './write-ring.js';
import type { RingMemory, WriteFailure } from './write-ring.js';

/** Writes what stands in the ring until it is ended. After a failure nothing more is written; what comes is let pass. */
const { port, ...memory } = workerData as RingMemory & { port: MessagePort };
const ring = ringOf(memory);
const { control, bytes, numbers } = ring;
const bases = new Map<number, Uint8Array>();
const decoder = new TextDecoder();

function baseOf(number: number): Uint8Array {
  for (let next = receiveMessageOnPort(port); next; next = receiveMessageOnPort(port)) {
    const told = next.message as { number: number; base: Uint8Array };
    bases.set(told.number, told.base);
  }
  return bases.get(number)!;
}

function writeEntry(at: number): void {
  const head = (at * UNIT) / Uint32Array.BYTES_PER_ELEMENT;
  const [base, nameLength, length] = [numbers[head + 1]!, numbers[head + 2]!, numbers[head + 3]!];
  const start = at * UNIT + HEAD;
  const path = decoder.decode(bytes.slice(start, start + nameLength));
  const own = bytes.subarray(start + nameLength, start + nameLength + length);
  try {
    writeCopy(path, { parts: base === NO_BASE ? [own] : [bases.get(base) ?? baseOf(base), own] });
  } catch (error) {
    const { code = '', message } = error as NodeJS.ErrnoException;
    port.postMessage({ path, code, message } satisfies WriteFailure);
    Atomics.store(control, FAILED, 1);
  }
}

/** Milliseconds between looks whether it has ended. */
const LOOK = 200;
let read = 0;
while (Atomics.load(control, ENDED) === 0) {
  const written = Atomics.load(control, WRITTEN);
  if (written === read) {
    // Not for ever: the end may have been told just before.
    Atomics.wait(control, WRITTEN, written, LOOK);
    continue;
  }
  const at = placeOf(ring, read);
  if (numbers[(at * UNIT) / 4 + 1] !== SKIP && Atomics.load(control, FAILED) === 0) writeEntry(at);
  read = (read + numbers[(at * UNIT) / 4]!) | 0;
  Atomics.store(control, READ, read);
  Atomics.notify(control, READ);
}
port.close();
