import type { KeyObject } from 'node:crypto';
import { hasPythonModule, runPython } from './python-process.js';

/** dkimpy, which asks a resolver of the test for the key (RFC 6376, 3.6.2). */
const program = `
import dkim, sys
record = sys.argv[1].encode()
asked = []
def txt(name, timeout=5):
    asked.append(name.decode())
    return record
good = dkim.verify(sys.stdin.buffer.read(), dnsfunc=txt)
print('good' if good else 'bad', ' '.join(asked))
`;

export const canVerifyDkim = (): boolean => hasPythonModule('dkim');

/** What a verifier that we did not write says of a signed message, and the name at which it asked for the key. */
export function verifyDkim(raw: string, key: KeyObject): { isGood: boolean; asked: string } {
  const record = `v=DKIM1; k=rsa; p=${key.export({ type: 'spki', format: 'der' }).toString('base64')}`;
  const [verdict = '', ...asked] = (runPython(program, [record], raw) ?? '').trim().split(' ');
  return { isGood: verdict === 'good', asked: asked.join(' ') };
}
