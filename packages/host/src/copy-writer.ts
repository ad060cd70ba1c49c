import { MessageChannel, Worker, receiveMessageOnPort } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import type { FilledCopy } from '@mailbag/core';
import { writeCopy } from './write-copy.js';
import { ENDED, FAILED, HEAD, NO_BASE, READ, SKIP, UNIT, WRITTEN, placeOf, ringOf } from './write-ring.js';
import type { Ring, RingMemory, WriteFailure } from './write-ring.js';

/** Bytes that may wait to be written: a power of two. */
const ROOM = 1 << 25;
/** Milliseconds that a single write may take before the thread is thought to be gone. */
const PATIENCE = 120_000;

type Parts = Pick<FilledCopy, 'parts'>;

/**
 * Writes copies one after the other from a thread of its own, so that the next copy is filled while the last one goes to the disk. Whoever fills is held
 * only while more than 32 MB wait. What copies of a template share goes over once.
 */
export class CopyWriter {
  private readonly ring: Ring;
  private readonly port: MessagePort;
  private readonly thread: Worker;
  private readonly bases = new Map<Uint8Array, number>();
  private readonly encoder = new TextEncoder();
  private failure: Error | null = null;

  constructor() {
    const memory: RingMemory = { control: new SharedArrayBuffer(16), data: new SharedArrayBuffer(ROOM) };
    const { port1, port2 } = new MessageChannel();
    this.ring = ringOf(memory);
    this.port = port1;
    port1.unref();
    this.thread = new Worker(new URL('./copy-writer-thread.js', import.meta.url), {
      workerData: { ...memory, port: port2 },
      transferList: [port2],
      execArgv: [],
    });
    this.thread.unref();
  }

  /**
   * Takes a copy over; it is in its place when `flush` is back.
   * @throws the system's error, also of a copy that was taken over before
   */
  write(path: string, copy: Parts): void {
    this.assertWhole();
    const { parts } = copy;
    const [first, ...rest] = parts;
    const base = rest.length > 0 ? this.numberOf(first!) : NO_BASE;
    const own = base === NO_BASE ? parts : rest;
    const name = this.encoder.encode(path);
    const length = own.reduce((sum, part) => sum + part.length, 0);
    const units = Math.ceil((HEAD + name.length + length) / UNIT);
    if (units > this.ring.size / 4) {
      // Larger than is worth carrying over.
      this.flush();
      writeCopy(path, copy);
      return;
    }
    let at = this.room(units);
    const { bytes, numbers, control } = this.ring;
    numbers.set([units, base, name.length, length], (at * UNIT) / Uint32Array.BYTES_PER_ELEMENT);
    at = at * UNIT + HEAD;
    bytes.set(name, at);
    at += name.length;
    for (const part of own) {
      bytes.set(part, at);
      at += part.length;
    }
    this.move(control[WRITTEN]! + units);
  }

  /** Waits until everything that was taken over is in its place. @throws the system's error */
  flush(): void {
    const { control } = this.ring;
    for (let read = Atomics.load(control, READ); read !== control[WRITTEN]; read = Atomics.load(control, READ)) this.await(read);
    this.assertWhole();
  }

  /** Flushes, and ends the thread. @throws the system's error */
  end(): void {
    try {
      this.flush();
    } finally {
      Atomics.store(this.ring.control, ENDED, 1);
      Atomics.notify(this.ring.control, WRITTEN);
      this.port.close();
    }
  }

  /** Which number the thread knows a base by; told to it when it is new. */
  private numberOf(base: Uint8Array): number {
    const known = this.bases.get(base);
    if (known !== undefined) return known;
    const number = this.bases.size + 1;
    this.bases.set(base, number);
    this.port.postMessage({ number, base });
    return number;
  }

  /** Where an entry of so many units can stand in one piece. */
  private room(units: number): number {
    const { control, numbers, size } = this.ring;
    const at = placeOf(this.ring, control[WRITTEN]!);
    const left = size - at;
    const skipped = units > left ? left : 0;
    for (
      let read = Atomics.load(control, READ);
      ((control[WRITTEN]! - read) | 0) + skipped + units > size;
      read = Atomics.load(control, READ)
    )
      this.await(read);
    if (skipped === 0) return at;
    numbers.set([left, SKIP], (at * UNIT) / Uint32Array.BYTES_PER_ELEMENT);
    this.move(control[WRITTEN]! + left);
    return 0;
  }

  private move(position: number): void {
    Atomics.store(this.ring.control, WRITTEN, position | 0);
    Atomics.notify(this.ring.control, WRITTEN);
  }

  private await(read: number): void {
    this.assertWhole();
    if (Atomics.wait(this.ring.control, READ, read, PATIENCE) === 'timed-out')
      throw new Error('The disk has not taken a copy for two minutes.');
  }

  private assertWhole(): void {
    if (Atomics.load(this.ring.control, FAILED) === 0) return;
    if (!this.failure) {
      const { message, ...rest } = receiveMessageOnPort(this.port)!.message as WriteFailure;
      this.failure = Object.assign(new Error(message), rest);
    }
    throw this.failure;
  }
}
