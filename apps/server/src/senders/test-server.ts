import type { MailTestAnswer, MailTestStep } from '@mailbag/contract';
import type { Detail } from '@mailbag/core';
import { oneLine, remark } from '@mailbag/core';
import SMTPConnection from 'nodemailer/lib/smtp-connection/index.js';
import type { OutgoingServer } from './outgoing-server.js';
import { connectionOptions } from './outgoing-server.js';

interface Failure extends Error {
  code?: string;
  command?: string;
  response?: string;
  /** Which wait a timeout ended. */
  timeoutType?: string;
}

/** What a person can do about a failure, by what the library says of it. */
function advice({ code, message, response, timeoutType }: Failure, { host, port, security }: OutgoingServer): Detail {
  const answer = oneLine(response ?? message).slice(0, 300);
  const isTls = security === 'tls';
  if (code === 'EDNS' || /ENOTFOUND|EAI_AGAIN/.test(message)) return remark('mail-host-unknown', { host });
  if (/ECONNREFUSED/.test(message)) return remark('mail-port-closed', { host, port });
  if (code === 'ETIMEDOUT' && timeoutType !== undefined && timeoutType !== 'CONNECT_TIMEOUT')
    return remark(isTls ? 'mail-mute-tls' : 'mail-mute', { host, port });
  if (code === 'ETIMEDOUT') return remark('mail-silent', { host, port });
  if (code === 'EAUTH') return remark('mail-sign-in-refused', { answer });
  if (/certificate|self.signed|altname|expired/i.test(message)) return remark('mail-certificate', { host, answer });
  if (code === 'ETLS' || /ssl|tls|wrong version/i.test(message))
    return remark(isTls ? 'mail-not-secured-tls' : 'mail-not-secured', { answer });
  if (code === 'EPROTOCOL') return remark('mail-not-smtp', { host, port, answer });
  return answer;
}

/** Connects, waits for the greeting, secures and signs in, and says at which step it fails and why. */
export function testMailServer(server: OutgoingServer): Promise<MailTestAnswer> {
  const connection = new SMTPConnection({ ...connectionOptions(server), logger: false } as object);
  const secures = server.security === 'none' ? [] : (['secure'] as const);
  const order: MailTestStep['step'][] = [
    'connect',
    ...(server.security === 'tls' ? secures : []),
    'greet',
    ...(server.security === 'starttls' ? secures : []),
    ...(server.user ? (['sign in'] as const) : []),
  ];
  return new Promise((resolve) => {
    let isOver = false;
    const finish = (failedAt: MailTestStep['step'] | null, error: Failure | null): void => {
      if (isOver) return;
      isOver = true;
      connection.close();
      const words = error ? advice(error, server) : '';
      const upTo = failedAt === null ? order.length : Math.max(0, order.indexOf(failedAt));
      const steps = order
        .slice(0, failedAt === null ? upTo : upTo + 1)
        .map((step): MailTestStep => ({ step, ok: step !== failedAt, answer: step === failedAt ? words : '' }));
      resolve({
        ok: failedAt === null,
        steps,
        answer: failedAt === null ? remark(server.user ? 'mail-signed-in' : 'mail-answered', { host: server.host }) : words,
      });
    };
    const stepOf = (error: Failure): MailTestStep['step'] => {
      const text = `${error.code ?? ''} ${error.message}`;
      if (error.code === 'EAUTH') return 'sign in';
      if (/ETLS|certificate|self.signed|altname|ssl|wrong version|STARTTLS/i.test(text))
        return order.includes('secure') ? 'secure' : 'greet';
      if (/ECONNREFUSED|EDNS|ENOTFOUND|EHOSTUNREACH|ENETUNREACH|connection timeout/i.test(text)) return 'connect';
      return 'greet';
    };
    connection.once('error', (error: Failure) => finish(stepOf(error), error));
    connection.once('end', () => finish('greet', Object.assign(new Error('The server closed the connection.'), { code: 'EPROTOCOL' })));
    connection.connect((error?: Failure | null) => {
      if (error) return finish(stepOf(error), error);
      if (!server.user) return finish(null, null);
      connection.login(
        { user: server.user, pass: server.password, credentials: { user: server.user, pass: server.password } } as never,
        (refused?: Failure | null) =>
          refused ? finish('sign in', { ...refused, message: refused.message, code: 'EAUTH' } as Failure) : finish(null, null),
      );
    });
  });
}
