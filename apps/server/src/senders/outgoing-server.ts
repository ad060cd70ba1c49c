import type { MailSecurity } from '@mailbag/contract';
import { config } from '../platform/config.js';

/** How a mail server is reached. */
export interface OutgoingServer {
  host: string;
  port: number;
  security: MailSecurity;
  checkCertificate: boolean;
  user: string;
  password: string;
}

/** As the mail library is told. */
export const connectionOptions = ({ host, port, security, checkCertificate, user, password }: OutgoingServer) => ({
  host,
  port,
  secure: security === 'tls',
  requireTLS: security === 'starttls',
  tls: { rejectUnauthorized: checkCertificate && security !== 'none', minVersion: 'TLSv1.2' as const },
  ...(user ? { auth: { user, pass: password } } : {}),
  connectionTimeout: config.mailTimeout,
  greetingTimeout: config.mailTimeout,
  // Later than the others, so that a greeting which never comes is told as that.
  socketTimeout: config.mailTimeout * 1.2,
  dnsTimeout: config.mailTimeout,
});
