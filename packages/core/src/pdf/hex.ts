/** Two hexadecimal digits of each byte. */
export const hexPairs: readonly string[] = Array.from({ length: 256 }, (_, byte) => byte.toString(16).padStart(2, '0'));

export function hexOf(bytes: Uint8Array): string {
  let out = '';
  for (let index = 0; index < bytes.length; index++) out += hexPairs[bytes[index]!];
  return out;
}
