import { fstatSync, readSync } from 'node:fs';
import type { Sqlite3Static } from '@sqlite.org/sqlite-wasm';

/** Days from the beginning of Julian day numbers to 1970-01-01, as SQLite counts time. */
const JULIAN_1970 = 2440587.5;
const DAY = 86_400_000;
const NAME = 'one-file';

/** A structure of the engine's C interface; the package's types leave its fields out. */
type Struct = { pointer: number; dispose(): void } & Record<
  '$iVersion' | '$szOsFile' | '$mxPathname' | '$zName' | '$xRandomness' | '$xSleep' | '$pMethods',
  number
>;
interface Structs {
  sqlite3_io_methods: new () => Struct;
  sqlite3_vfs: new (pointer?: number) => Struct;
  sqlite3_file: { new (pointer: number): Struct; structInfo: { sizeof: number } };
  sqlite3_vfs_find(name: null): number;
}

/**
 * Lets SQLite read one file that is open already, and no other: the engine has no way to any path (SQLite, “The OS Interface or VFS”).
 * @param descriptor of the open file
 * @returns the name under which it is opened
 */
export function oneFileVfs({ capi, wasm, vfs }: Sqlite3Static, descriptor: number): { vfs: string; size: number } {
  const { size } = fstatSync(descriptor);
  const structs = capi as unknown as Structs;
  const io = new structs.sqlite3_io_methods();
  io.$iVersion = 1;
  const own = new structs.sqlite3_vfs();
  const standard = new structs.sqlite3_vfs(structs.sqlite3_vfs_find(null));
  own.$iVersion = 2;
  own.$szOsFile = structs.sqlite3_file.structInfo.sizeof;
  own.$mxPathname = 64;
  own.$zName = wasm.allocCString(NAME, false) as unknown as number;
  own.$xRandomness = standard.$xRandomness;
  own.$xSleep = standard.$xSleep;
  const files = {
    xClose: () => 0,
    xRead(_file: number, into: number, count: number, offset: number | bigint) {
      const heap = wasm.heap8u();
      let got = 0;
      while (got < count) {
        const more = readSync(descriptor, heap, into + got, count - got, Number(offset) + got);
        if (more === 0) break;
        got += more;
      }
      if (got === count) return 0;
      heap.fill(0, into + got, into + count);
      return capi.SQLITE_IOERR_SHORT_READ;
    },
    xWrite: () => capi.SQLITE_READONLY,
    xTruncate: () => capi.SQLITE_READONLY,
    xSync: () => 0,
    xFileSize(_file: number, into: number) {
      wasm.poke(into, BigInt(size) as never, 'i64');
      return 0;
    },
    xLock: () => 0,
    xUnlock: () => 0,
    xCheckReservedLock(_file: number, into: number) {
      wasm.poke(into, 0, 'i32');
      return 0;
    },
    xFileControl: () => capi.SQLITE_NOTFOUND,
    xSectorSize: () => 4096,
    xDeviceCharacteristics: () => capi.SQLITE_IOCAP_IMMUTABLE,
  };
  const system = {
    xOpen(_vfs: number, _name: number, file: number, flags: number, flagsOut: number) {
      // No journal, no other database, no temporary file.
      if ((flags & capi.SQLITE_OPEN_MAIN_DB) === 0) return capi.SQLITE_CANTOPEN;
      const opened = new structs.sqlite3_file(file);
      opened.$pMethods = io.pointer;
      opened.dispose();
      if (flagsOut) wasm.poke(flagsOut, capi.SQLITE_OPEN_READONLY, 'i32');
      return 0;
    },
    xDelete: () => capi.SQLITE_READONLY,
    xAccess(_vfs: number, _name: number, _flags: number, into: number) {
      wasm.poke(into, 0, 'i32');
      return 0;
    },
    xFullPathname: (_vfs: number, name: number, maximum: number, into: number) =>
      wasm.cstrncpy(into, name, maximum) < maximum ? 0 : capi.SQLITE_CANTOPEN,
    xGetLastError: () => 0,
    xCurrentTime(_vfs: number, into: number) {
      wasm.poke(into, JULIAN_1970 + Date.now() / DAY, 'double');
      return 0;
    },
    xCurrentTimeInt64(_vfs: number, into: number) {
      wasm.poke(into, BigInt(Math.round(JULIAN_1970 * DAY + Date.now())) as never, 'i64');
      return 0;
    },
  };
  vfs.installVfs({
    io: { struct: io, methods: files },
    vfs: { struct: own, name: NAME, methods: system },
  } as never);
  return { vfs: NAME, size };
}
