import { createServer } from 'node:net';
import type { Server, Socket } from 'node:net';

interface StoredMessage {
  uid: number;
  raw: Buffer;
  flags: Set<string>;
}

/** One folder, INBOX, as it is read by IMAP. */
export class ImapBox {
  readonly messages: StoredMessage[] = [];
  private nextUid = 1;
  readonly uidValidity = 20270115;

  add(raw: Buffer): void {
    this.messages.push({ uid: this.nextUid++, raw, flags: new Set() });
  }
  get uidNext(): number {
    return this.nextUid;
  }
}

/** The numbers of a sequence set (RFC 9051, 9): `1,3:5,7:*`. */
function inSet(set: string, value: number, last: number): boolean {
  return set.split(',').some((part) => {
    const [from, to = from] = part.split(':').map((one) => (one === '*' ? last : Number(one)));
    return value >= Math.min(from!, to!) && value <= Math.max(from!, to!);
  });
}

/** Speaks as much of IMAP (RFC 9051, RFC 3501) as a reader of one mailbox needs. Any user, every password but `wrong`. */
export function imapServer(box: ImapBox): Server {
  return createServer((socket: Socket) => {
    const send = (line: string): void => void socket.write(`${line}\r\n`);
    let buffered = '';
    let asksForPlain: string | null = null;
    let idles: string | null = null;
    socket.on('error', () => undefined);
    send('* OK [CAPABILITY IMAP4rev1 AUTH=PLAIN SASL-IR UIDPLUS IDLE ID NAMESPACE] stand-in mailbox ready');

    const fetched = (message: StoredMessage, index: number, items: string): string => {
      const parts: string[] = [`UID ${message.uid}`];
      if (/FLAGS/i.test(items)) parts.push(`FLAGS (${[...message.flags].join(' ')})`);
      if (/RFC822\.SIZE/i.test(items)) parts.push(`RFC822.SIZE ${message.raw.length}`);
      if (/INTERNALDATE/i.test(items)) parts.push('INTERNALDATE "15-Jan-2027 10:00:00 +0000"');
      const body = /BODY(?:\.PEEK)?\[\](?:<(\d+)\.(\d+)>)?/i.exec(items);
      if (body) {
        const from = Number(body[1] ?? 0);
        const bytes = message.raw.subarray(from, body[2] ? from + Number(body[2]) : undefined);
        parts.push(`BODY[]${body[1] ? `<${from}>` : ''} {${bytes.length}}\r\n${bytes.toString('latin1')}`);
        if (!/PEEK/i.test(items)) message.flags.add('\\Seen');
      }
      return `* ${index + 1} FETCH (${parts.join(' ')})`;
    };
    const matching = (query: string): StoredMessage[] => {
      const last = box.messages.at(-1)?.uid ?? 0;
      const uids = /\bUID ([\d:*,]+)/i.exec(query)?.[1];
      return box.messages.filter(
        (one) => !(/UNSEEN|NOT SEEN|UNKEYWORD/i.test(query) && one.flags.has('\\Seen')) && !(uids && !inSet(uids, one.uid, last)),
      );
    };

    const run = (tag: string, command: string, rest: string): void => {
      const ok = (words = `${command} done`): void => send(`${tag} OK ${words}`);
      switch (command) {
        case 'CAPABILITY':
          send('* CAPABILITY IMAP4rev1 AUTH=PLAIN SASL-IR UIDPLUS IDLE ID NAMESPACE');
          return ok();
        case 'ID':
          send('* ID ("name" "stand-in")');
          return ok();
        case 'LOGIN':
          return /"?wrong"?\s*$/.test(rest) ? send(`${tag} NO [AUTHENTICATIONFAILED] user or password is wrong`) : ok('LOGIN done');
        case 'AUTHENTICATE': {
          const [, first] = rest.split(' ');
          if (first === undefined) {
            asksForPlain = tag;
            return send('+ ');
          }
          return plain(tag, first);
        }
        case 'NAMESPACE':
          send('* NAMESPACE (("" "/")) NIL NIL');
          return ok();
        case 'LIST':
        case 'LSUB':
          send(`* ${command} (\\HasNoChildren) "/" INBOX`);
          return ok();
        case 'STATUS':
          send(
            `* STATUS INBOX (MESSAGES ${box.messages.length} UIDNEXT ${box.uidNext} UIDVALIDITY ${box.uidValidity} UNSEEN ${box.messages.filter(({ flags }) => !flags.has('\\Seen')).length})`,
          );
          return ok();
        case 'SELECT':
        case 'EXAMINE':
          if (!/^"?INBOX"?/i.test(rest)) return send(`${tag} NO [NONEXISTENT] no such folder`);
          send('* FLAGS (\\Seen \\Deleted)');
          send(`* ${box.messages.length} EXISTS`);
          send('* 0 RECENT');
          send(`* OK [UIDVALIDITY ${box.uidValidity}] valid`);
          send(`* OK [UIDNEXT ${box.uidNext}] next`);
          send('* OK [PERMANENTFLAGS (\\Seen \\Deleted)] kept');
          return ok('[READ-WRITE] SELECT done');
        case 'UID SEARCH':
          send(
            `* SEARCH${matching(rest)
              .map(({ uid }) => ` ${uid}`)
              .join('')}`,
          );
          return ok();
        case 'UID FETCH': {
          const [set = '', ...items] = rest.split(' ');
          const last = box.messages.at(-1)?.uid ?? 0;
          box.messages.forEach(
            (one, index) => inSet(set, one.uid, last) && socket.write(`${fetched(one, index, items.join(' '))}\r\n`, 'latin1'),
          );
          return ok();
        }
        case 'UID STORE': {
          const [set = '', how = '', ...flags] = rest.split(' ');
          const list = flags.join(' ').replace(/[()]/g, '').split(' ');
          const last = box.messages.at(-1)?.uid ?? 0;
          box.messages.forEach((one, index) => {
            if (!inSet(set, one.uid, last)) return;
            for (const flag of list)
              if (how.startsWith('-')) one.flags.delete(flag);
              else one.flags.add(flag);
            if (!/SILENT/i.test(how)) send(`* ${index + 1} FETCH (UID ${one.uid} FLAGS (${[...one.flags].join(' ')}))`);
          });
          return ok();
        }
        case 'IDLE':
          idles = tag;
          return send('+ idling');
        case 'LOGOUT':
          send('* BYE until next time');
          ok();
          return void socket.end();
        case 'NOOP':
        case 'CHECK':
        case 'CLOSE':
        case 'UNSELECT':
        case 'EXPUNGE':
        case 'ENABLE':
          send(`* ${box.messages.length} EXISTS`);
          return ok();
        default:
          return send(`${tag} BAD ${command} is not known here`);
      }
    };
    const plain = (tag: string, response: string): void => {
      const password = Buffer.from(response, 'base64').toString('utf8').split('\0')[2];
      send(password === 'wrong' ? `${tag} NO [AUTHENTICATIONFAILED] user or password is wrong` : `${tag} OK AUTHENTICATE done`);
    };
    socket.on('data', (chunk) => {
      buffered += chunk.toString('latin1');
      for (let end = buffered.indexOf('\r\n'); end >= 0; end = buffered.indexOf('\r\n')) {
        const line = buffered.slice(0, end);
        buffered = buffered.slice(end + 2);
        if (asksForPlain !== null) {
          plain(asksForPlain, line);
          asksForPlain = null;
        } else if (idles !== null && /^DONE$/i.test(line)) {
          send(`${idles} OK IDLE done`);
          idles = null;
        } else {
          const [tag = '*', ...words] = line.split(' ');
          const length = /^uid$/i.test(words[0] ?? '') ? 2 : 1;
          run(tag, words.slice(0, length).join(' ').toUpperCase(), words.slice(length).join(' '));
        }
      }
    });
  });
}
