import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { Mood } from './behaviour.js';
import { moods } from './behaviour.js';
import type { ImapBox } from './imap.js';
import type { Mailbox } from './mailbox.js';
import type { PostOfficeServer } from './smtp.js';

const escape = (text: string): string => text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);

const frame = (
  title: string,
  body: string,
): string => `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escape(title)}</title><style>
body{font:15px/22px system-ui,sans-serif;color:#22303C;background:#FAF7F0;margin:0}main{max-width:960px;margin:0 auto;padding:24px 16px}
h1{font-size:22px;margin:0 0 4px}p{margin:4px 0 12px;color:#566370}table{border-collapse:collapse;width:100%;background:#fff;border:1px solid #D8D0BF}
th,td{text-align:left;padding:8px 10px;border-bottom:1px solid #E8E1D2;vertical-align:top}th{font-weight:400;color:#566370;font-size:13px}a{color:#6A2C50}
pre{white-space:pre-wrap;font:inherit;background:#fff;border:1px solid #D8D0BF;padding:14px;border-radius:6px}</style><main>${body}</main></html>`;

/** The page on which one sees each received message as its recipient would, and the same as data under /messages.json. */
export function mailPage(mailbox: Mailbox, box: ImapBox, office: PostOfficeServer): Server {
  return createServer((request, response) => {
    void (async () => {
      const url = new URL(request.url ?? '/', 'http://stand-in');
      const html = (status: number, title: string, body: string): void =>
        void response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(frame(title, body));
      if (url.pathname === '/messages.json')
        return void response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(mailbox.received));
      // How the whole post office behaves, for tests and the demo: `?mood=busy`, `?reports=2525`, `?after=1000`.
      if (url.pathname === '/behave' && request.method === 'POST') {
        const [mood, reports, after] = ['mood', 'reports', 'after'].map((name) => url.searchParams.get(name));
        if (moods.includes(mood as Mood)) office.mood = mood as Mood;
        if (reports) office.reportsTo = Number(reports);
        if (after) office.replyAfter = Number(after);
        return void response.writeHead(204).end();
      }
      const raw = /^\/messages\/(\d+)\.eml$/.exec(url.pathname);
      if (raw) {
        const found = await mailbox.open(Number(raw[1]));
        return void response.writeHead(found ? 200 : 404, { 'content-type': 'message/rfc822' }).end(found?.raw);
      }
      if (url.pathname === '/reports.json')
        return void response
          .writeHead(200, { 'content-type': 'application/json' })
          .end(JSON.stringify(box.messages.map(({ uid, flags }) => ({ uid, seen: flags.has('\\Seen') }))));
      const attachment = /^\/messages\/(\d+)\/attachments\/(\d+)/.exec(url.pathname);
      const message = /^\/messages\/(\d+)$/.exec(url.pathname);
      if (attachment) {
        const found = (await mailbox.open(Number(attachment[1])))?.attachments[Number(attachment[2])];
        if (!found) return html(404, 'Gone', '<h1>Gone</h1><p>Only the newest messages are kept whole.</p>');
        return void response.writeHead(200, { 'content-type': found.type, 'content-length': found.content.length }).end(found.content);
      }
      if (message) {
        const found = await mailbox.open(Number(message[1]));
        if (!found) return html(404, 'Gone', '<h1>Gone</h1><p>Only the newest messages are kept whole.</p>');
        const { received, text } = found;
        const files = received.attachments
          .map(
            (one, index) =>
              `<li><a href="/post-office/messages/${received.id}/attachments/${index}">${escape(one.name)}</a> · ${Math.ceil(one.size / 1024)} KB</li>`,
          )
          .join('');
        return html(
          200,
          received.subject,
          `<p><a href="/post-office">All messages</a></p><h1>${escape(received.subject)}</h1><p>From ${escape(received.from)}<br>To ${escape(received.to)}<br>${escape(received.messageId)}</p><pre>${escape(text)}</pre><ul>${files}</ul>`,
        );
      }
      const rows = [...mailbox.received].reverse().slice(0, 200);
      const table = rows
        .map(
          (one) =>
            `<tr><td>${one.at.slice(11, 19)}</td><td>${escape(one.to)}</td><td><a href="/post-office/messages/${one.id}">${escape(one.subject) || '(no subject)'}</a></td><td>${one.attachments.length}</td></tr>`,
        )
        .join('');
      return html(
        200,
        'Post office',
        `<h1>Post office</h1><p>A stand-in for the outside world: ${mailbox.received.length} messages were accepted. Nothing leaves this machine.</p>` +
          (rows.length
            ? `<table><tr><th>At</th><th>To</th><th>Message</th><th>Attachments</th></tr>${table}</table>`
            : '<p>No message yet. Start a batch that is mailed.</p>'),
      );
    })().catch((error: unknown) => response.writeHead(500).end(String(error)));
  });
}
