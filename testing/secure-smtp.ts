import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PythonServer, hasPythonModule } from './python-process.js';

/** aiosmtpd, with sign-in, secured after STARTTLS (RFC 3207) or from the first byte (RFC 8314). */
const program = `
import os, ssl, sys, time
from aiosmtpd.controller import Controller
from aiosmtpd.smtp import AuthResult, LoginPassword
port, folder, way, cert, key = int(sys.argv[1]), sys.argv[2], sys.argv[3], sys.argv[4], sys.argv[5]
class Taker:
    count = 0
    async def handle_DATA(self, server, session, envelope):
        Taker.count += 1
        path = os.path.join(folder, '%06d' % Taker.count)
        with open(path + '.part', 'wb') as out:
            out.write((('secured' if session.ssl or way == 'tls' else 'open') + '\\n').encode() + envelope.content)
        os.rename(path + '.part', path + '.eml')
        return '250 2.0.0 taken'
def sign_in(server, session, envelope, mechanism, data):
    good = isinstance(data, LoginPassword) and data.login == b'office' and data.password == b'right'
    return AuthResult(success=good, handled=good)
context = ssl.create_default_context(ssl.Purpose.CLIENT_AUTH)
context.load_cert_chain(cert, key)
more = dict(ssl_context=context, auth_require_tls=False) if way == 'tls' else dict(tls_context=context, require_starttls=True)
Controller(Taker(), hostname='127.0.0.1', port=port, authenticator=sign_in, auth_required=True, **more).start()
while True: time.sleep(60)
`;

/** An authority for certificates that only a test trusts. */
export class TestAuthority {
  readonly folder = mkdtempSync(join(tmpdir(), 'mailbag-authority-'));
  readonly certificate = join(this.folder, 'ca.pem');
  private readonly key = join(this.folder, 'ca.key');

  constructor() {
    // prettier-ignore
    this.openssl('req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-keyout', this.key, '-out', this.certificate, '-subj', '/CN=Test authority', '-days', '2');
  }
  private openssl(...args: string[]): void {
    execFileSync('openssl', args, { stdio: 'ignore' });
  }
  /** @param names subject alternative names, such as `IP:127.0.0.1` @returns paths of certificate and key */
  issue(name: string, names: string): { certificate: string; key: string } {
    const [certificate, key, request, more] = ['pem', 'key', 'csr', 'ext'].map((end) => join(this.folder, `${name}.${end}`)) as [
      string,
      string,
      string,
      string,
    ];
    this.openssl('req', '-newkey', 'rsa:2048', '-nodes', '-keyout', key, '-out', request, '-subj', `/CN=${name}`);
    writeFileSync(more, `subjectAltName=${names}\n`);
    // prettier-ignore
    this.openssl('x509', '-req', '-in', request, '-CA', this.certificate, '-CAkey', this.key, '-CAcreateserial', '-out', certificate, '-days', '2', '-extfile', more);
    return { certificate, key };
  }
  close(): void {
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** A mail server with TLS that we did not write. */
export class SecureSmtp {
  private constructor(private readonly server: PythonServer) {}

  static isThere(): boolean {
    return hasPythonModule('aiosmtpd') && spawnSync('openssl', ['version']).status === 0;
  }
  static async open(way: 'starttls' | 'tls', { certificate, key }: { certificate: string; key: string }): Promise<SecureSmtp> {
    return new SecureSmtp(await PythonServer.open(program, way, certificate, key));
  }
  get port(): number {
    return this.server.port;
  }
  /** Messages, and whether each came over a secured connection. */
  taken(): { secured: boolean; raw: string }[] {
    return this.server.files().map(([mark, ...rest]) => ({ secured: mark === 'secured', raw: rest.join('\n') }));
  }
  close(): Promise<void> {
    return this.server.close();
  }
}
