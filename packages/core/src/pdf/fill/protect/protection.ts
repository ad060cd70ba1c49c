import type { Ciphers } from '../../../platform/ports.js';
import { MailbagError, isMailbagError } from '../../../errors/catalogue.js';
import type { Finish } from '../../finish.js';
import { hexOf } from '../../hex.js';
import { passwordBytes, passwordHash } from './password-hash.js';

/** What who opens a copy without the permissions password may do (ISO 32000-2, table 22). */
export type Permission = 'print' | 'modify' | 'copy' | 'annotate' | 'fill' | 'assemble';

/** Bit positions of P, 1-based. Printing in good quality goes with printing; reading aloud is never forbidden. */
const bits: Record<Permission, number[]> = { print: [3, 12], modify: [4], copy: [5], annotate: [6], fill: [9], assemble: [11] };
const FOR_ACCESSIBILITY = 10;

export interface ProtectionOptions {
  ciphers: Ciphers;
  /** 32 random bytes that are kept secret; the same seed gives the same bytes. */
  seed: Uint8Array;
  /** Empty: opens without a password. */
  openPassword?: string;
  /** Empty: nobody can lift the limits. */
  permissionsPassword?: string;
  permissions?: readonly Permission[];
}

/** Passwords made ready, which takes some milliseconds: done once for all copies that share them. */
export interface Protection {
  ciphers: Ciphers;
  /** Encrypts every copy that has these passwords: who can open one of them can open all. */
  key: Uint8Array;
  /** The encryption dictionary. */
  dict: string;
  /** The first bytes of initialisation vectors, other ones under each label. */
  nonce(label: string): Uint8Array;
}

const label = (text: string): Uint8Array => new TextEncoder().encode(text);

/** P as a signed number of 32 bits: reserved bits are set, bits 1 and 2 are not. */
export function permissionBits(permissions: readonly Permission[]): number {
  let value = 0xfffff0c0 | (1 << (FOR_ACCESSIBILITY - 1));
  for (const position of [3, 4, 5, 6, 9, 11, 12]) value &= ~(1 << (position - 1));
  for (const one of permissions) for (const position of bits[one]) value |= 1 << (position - 1);
  return value | 0;
}

/** Everything is allowed. */
const ALL: readonly Permission[] = ['print', 'modify', 'copy', 'annotate', 'fill', 'assemble'];

/** What may be done with a copy whose author says nothing: printed and copied from, and filled where it is meant to be. */
export const usualPermissions = (finish: Finish): readonly Permission[] =>
  finish === 'open' ? ['print', 'copy', 'fill'] : ['print', 'copy'];

/** Why a copy cannot have two passwords; null: it can. Empty: none. */
export function passwordFault({ open, permissions }: { open: string; permissions: string }): MailbagError | null {
  try {
    const [opening, owner] = [passwordBytes(open), passwordBytes(permissions)];
    return permissions !== '' && hexOf(owner) === hexOf(opening) ? new MailbagError('password-both', {}) : null;
  } catch (error) {
    if (isMailbagError(error)) return error;
    throw error;
  }
}

/** Revision 6 of the standard security handler (ISO 32000-2, 7.6.4.4, algorithms 8 and 9). @throws MailbagError password-both, password-long */
export function prepareProtection(options: ProtectionOptions): Protection {
  const { ciphers, seed } = options;
  const salts = ciphers.hmac(seed, label('salts'));
  const fault = passwordFault({ open: options.openPassword ?? '', permissions: options.permissionsPassword ?? '' });
  if (fault) throw fault;
  const open = passwordBytes(options.openPassword ?? '');
  const user = new Uint8Array(48);
  user.set(passwordHash(ciphers, open, salts.subarray(0, 8)));
  user.set(salts.subarray(0, 16), 32);
  const owner = new Uint8Array(48);
  let ownerKey: Uint8Array | null = null;
  if (options.permissionsPassword) {
    const password = passwordBytes(options.permissionsPassword);
    owner.set(passwordHash(ciphers, password, salts.subarray(16, 24), user));
    owner.set(salts.subarray(16, 32), 32);
    ownerKey = passwordHash(ciphers, password, salts.subarray(24, 32), user);
  } else {
    // No password leads to these bytes, and none has to be derived.
    owner.set(ciphers.hmac(seed, label('owner')));
    owner.set(salts.subarray(16, 32), 32);
  }
  const userKey = passwordHash(ciphers, open, salts.subarray(8, 16));
  const key = ciphers.hmac(seed, label('key'));
  const permissions = permissionBits(options.permissions ?? ALL);
  const perms = new Uint8Array(16);
  new DataView(perms.buffer).setInt32(0, permissions, true);
  // Algorithm 10: the upper half of P, "T" for metadata that is encrypted too, "adb", and four bytes that nobody reads.
  perms.set([0xff, 0xff, 0xff, 0xff, 0x54, 0x61, 0x64, 0x62], 4);
  perms.set(ciphers.hmac(seed, label('perms')).subarray(0, 4), 12);
  const wrapped = (by: Uint8Array | null): string => hexOf(by ? ciphers.encryptCbc(by, null, key) : ciphers.hmac(seed, label('oe')));
  return {
    ciphers,
    key,
    dict:
      '<</Filter/Standard/V 5/R 6/Length 256/CF<</StdCF<</AuthEvent/DocOpen/CFM/AESV3/Length 32>>>>/StmF/StdCF/StrF/StdCF' +
      `/O<${hexOf(owner)}>/U<${hexOf(user)}>/OE<${wrapped(ownerKey)}>/UE<${wrapped(userKey)}>/P ${permissions}` +
      `/Perms<${hexOf(ciphers.encryptBlock(key, perms))}>/EncryptMetadata true>>`,
    nonce: (text) => ciphers.hmac(seed, label('nonce'), label(text)).subarray(0, 12),
  };
}
