import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import PostalMime from 'postal-mime';
import { readMessage, writeMessage } from './message.ts';

const base = {
  from: { name: 'Färberei am Mühltor', address: 'studio@wrenfold.example' },
  to: 'studio@wrenfold.example',
  subject: 'Ein Tuch, 2 Töpfe',
  messageId: 'a.b@swift-twin.invalid',
  date: new Date('2026-03-29T01:30:00Z'),
  text: 'Grün und blau.\nZwei Zeilen.'
};

test('a message comes back as it was written, with its files', async () => {
  const bytes = Uint8Array.from({ length: 300 }, (_, i) => i % 256);
  const files = [{ name: 'picture.png', type: 'image/png', bytes }];
  const raw = writeMessage({ ...base, html: '<p>Grün</p>', files, inReplyTo: 'c@d.example' });
  const read = await PostalMime.parse(raw);
  assert.equal(read.from?.name, base.from.name);
  assert.equal(read.subject, base.subject);
  assert.equal(read.date, '2026-03-29T01:30:00.000Z');
  assert.match(read.html ?? '', /<p>Grün<\/p>/);
  assert.deepEqual(new Uint8Array(read.attachments[0]?.content as ArrayBuffer), bytes);
  assert.deepEqual(await readMessage(raw), {
    messageId: 'a.b@swift-twin.invalid',
    inReplyTo: 'c@d.example',
    subject: base.subject,
    text: base.text
  });
  // Lines of mail have at most 998 characters, and only ASCII (RFC 5322, 2.1.1).
  assert.ok(raw.split(/\r?\n/).every((line) => line.length <= 998));
  assert.match(raw, /^[\x00-\x7f]*$/);
});

test('no subject, name or file name can add a header', async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: 'grapheme' }), async (text) => {
      const evil = `${text}\r\nBcc: thief@example.org\r\n\r\nboo`;
      const raw = writeMessage({
        ...base,
        subject: evil,
        from: { ...base.from, name: evil },
        files: [{ name: evil, type: 'image/png', bytes: new Uint8Array(3) }]
      });
      const read = await PostalMime.parse(raw);
      assert.ok(!read.headers.some((h) => h.key === 'bcc'));
      assert.equal(read.bcc, undefined);
    }),
    { numRuns: 60 }
  );
});

test('what is no message is read as an empty one', async () => {
  assert.deepEqual(await readMessage(new Uint8Array([0, 255, 3])), {
    messageId: '',
    inReplyTo: '',
    subject: '',
    text: ''
  });
});

test('whatever stands in a message, it has its own headers and no other, and is read as it was written', async () => {
  const any = fc.oneof(
    fc.string({ unit: 'binary', maxLength: 120 }),
    fc.constantFrom(
      'a\r\nBcc: all@x.example',
      'x>\r\n\r\nbody',
      '=?UTF-8?B?QQ==?=',
      '"',
      '\0',
      'ä'.repeat(90)
    )
  );
  await fc.assert(
    fc.asyncProperty(any, any, any, any, any, async (name, address, subject, text, file) => {
      const raw = writeMessage({
        from: { name, address: `${address}@x.example` },
        to: `${address}@x.example`,
        subject,
        messageId: `${address}@x`,
        inReplyTo: `${address}@y`,
        date: new Date(0),
        text,
        html: `<p>${file}</p>`,
        files: [{ name: file, type: file, bytes: Uint8Array.of(1, 2, 3) }]
      });
      const head = raw.slice(0, raw.indexOf('\r\n\r\n')).replace(/\r\n /g, ' ');
      assert.deepEqual(
        head.split('\r\n').map((line) => line.slice(0, line.indexOf(':'))),
        [
          'From',
          'To',
          'Subject',
          'Message-ID',
          'In-Reply-To',
          'Date',
          'MIME-Version',
          'Content-Type'
        ]
      );
      assert.ok(raw.split('\r\n').every((line) => line.length < 998));
      const read = await PostalMime.parse(raw);
      assert.equal(read.attachments.length, 1);
      assert.deepEqual(
        new Uint8Array(read.attachments[0]!.content as ArrayBuffer),
        Uint8Array.of(1, 2, 3)
      );
      const lines = (given = '') => given.trim().split(/\r\n?|\n/);
      assert.deepEqual(lines(read.text), lines(text.toWellFormed()));
    }),
    { includeErrorInReport: true }
  );
});
