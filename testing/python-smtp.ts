import { PythonServer, hasPythonModule } from './python-process.js';

/** Python's own SMTP server; each message becomes a file: envelope in the first lines, then the message. */
const program = `
import asyncore, smtpd, sys, os
class Taker(smtpd.SMTPServer):
    count = 0
    def process_message(self, peer, mailfrom, rcpttos, data, **kwargs):
        Taker.count += 1
        path = os.path.join(sys.argv[2], '%06d' % Taker.count)
        with open(path + '.part', 'wb') as out:
            out.write(('%s\\n%s\\n' % (mailfrom, ','.join(rcpttos))).encode() + data)
        os.rename(path + '.part', path + '.eml')
Taker(('127.0.0.1', int(sys.argv[1])), None, decode_data=False, enable_SMTPUTF8=True)
asyncore.loop()
`;

/** An SMTP server that we did not write. */
export class PythonSmtp {
  private constructor(private readonly server: PythonServer) {}

  static isThere(): boolean {
    return hasPythonModule('smtpd');
  }
  static async open(): Promise<PythonSmtp> {
    return new PythonSmtp(await PythonServer.open(program));
  }
  get port(): number {
    return this.server.port;
  }
  /** What it took: return path, recipients, the message. */
  taken(): { from: string; to: string[]; raw: string }[] {
    return this.server.files().map(([from = '', to = '', ...rest]) => ({ from, to: to.split(','), raw: rest.join('\n') }));
  }
  close(): Promise<void> {
    return this.server.close();
  }
}
