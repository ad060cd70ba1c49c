import { addMailServer, addSender, mailServer } from '../../../../demo/src/mail-set-up.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import { SecureSmtp, TestAuthority } from '../../../../testing/secure-smtp.js';
import { triedServer } from '../../../../testing/tried-server.js';

const isThere = SecureSmtp.isThere();
const secured = isThere ? test : test.skip;

let office: PostOffice;
let authority: TestAuthority;
let mailbag: RunningMailbag;
beforeAll(async () => {
  if (!isThere) return;
  authority = new TestAuthority();
  office = await PostOffice.open();
  // As an administrator has a computer trust the authority of their own house.
  mailbag = new RunningMailbag({ MAILBAG_MAIL_TIMEOUT: '3000', NODE_EXTRA_CA_CERTS: authority.certificate });
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag?.close();
  await office?.close();
  authority?.close();
});

const tried = (port: number, more: object): ReturnType<typeof triedServer> =>
  triedServer(mailbag, { ...mailServer(port), user: 'office', password: 'right', ...more });

secured.each(['starttls', 'tls'] as const)(
  'a server that is secured by %s with a good certificate takes the sign-in and the message, and nothing goes to it in the open',
  async (way) => {
    const smtp = await SecureSmtp.open(way, authority.issue(`good-${way}`, 'IP:127.0.0.1'));
    try {
      const answer = await tried(smtp.port, { security: way });
      expect(answer).toMatchObject({ ok: true });
      expect(answer.steps.map(({ step }) => step)).toEqual(expect.arrayContaining(['secure', 'sign in']));
      expect((await tried(smtp.port, { security: way, password: 'wrong' })).steps.at(-1)).toMatchObject({ step: 'sign in', ok: false });
      const server = await addMailServer(mailbag.client, smtp.port, { name: way, security: way, user: 'office', password: 'right' });
      const code = async (): Promise<string> => {
        for (;;) {
          const found = /^Subject: (\d{6})/m.exec(smtp.taken().at(-1)?.raw ?? '');
          if (found) return found[1]!;
          await new Promise((done) => setTimeout(done, 50));
        }
      };
      await addSender(mailbag.client, server, `${way}@larkmere.example`, code);
      expect(smtp.taken().map(({ secured }) => secured)).toEqual([true]);
    } finally {
      await smtp.close();
    }
  },
);

secured(
  'a certificate of a stranger, or for another name, fails at securing with the reason; who knows better can leave the check out',
  async () => {
    const stranger = new TestAuthority();
    const other = await SecureSmtp.open('starttls', stranger.issue('stranger', 'IP:127.0.0.1'));
    const named = await SecureSmtp.open('starttls', authority.issue('named', 'DNS:mail.other.example'));
    try {
      for (const [smtp, why] of [
        [other, /certificate/i],
        [named, /certificate|name/i],
      ] as const) {
        const answer = await tried(smtp.port, { security: 'starttls' });
        expect(answer.ok).toBe(false);
        expect(answer.steps.at(-1)).toMatchObject({ step: 'secure', ok: false, answer: expect.stringMatching(why) });
      }
      expect(await tried(other.port, { security: 'starttls', checkCertificate: false })).toMatchObject({ ok: true });
      expect(other.taken()).toEqual([]);
    } finally {
      await other.close();
      await named.close();
      stranger.close();
    }
  },
);
