import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { textToHtml, tidyDescription } from '../../src/lib/core/article/template/description.ts';
import { CaptionError } from '../../src/lib/core/captions/cue.ts';
import { readCaptions } from '../../src/lib/core/captions/read.ts';
import { canonicalAddress } from '../../src/lib/core/feeds/address.ts';
import { cleanHtml } from '../../src/lib/core/feeds/clean.ts';
import { readPage } from '../../src/lib/core/feeds/page.ts';
import { readFeed } from '../../src/lib/core/feeds/read.ts';
import { writeMessage } from '../../src/lib/core/mail/message.ts';
import { readMarkdown } from '../../src/lib/core/markup/markdown.ts';
import { markupProblem } from '../../src/lib/core/markup/guard.ts';
import { htmlText } from '../../src/lib/core/text/html.ts';
import { tame } from '../../src/lib/core/text/tame.ts';
import { talkApi } from '../../src/lib/workers/talkApi.ts';
import { endsSoon } from './limit.ts';

const BASE = 'https://x.example/';
const vtt = (texts: readonly string[]): string =>
  `WEBVTT\n\n${texts
    .map((text, i) => {
      const at = (n: number) => new Date(n * 1000).toISOString().slice(11, 23);
      return `${at(3 * i)} --> ${at(3 * i + 3)}\n${text}\n`;
    })
    .join('\n')}`;
const feed = (entry: string): string =>
  `<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom"><title>F</title><id>${BASE}</id>${entry}</feed>`;
const entry = (title: string, content: string): string =>
  `<entry><id>${BASE}1</id><title>${title}</title><link href="${BASE}1"/><updated>2026-01-01T00:00:00Z</updated><content type="html"><![CDATA[${content}]]></content></entry>`;

/** Reads a talk as the desk does. */
const readTalk = (source: string) => {
  const { cues } = readCaptions(source);
  const api = talkApi();
  const talk = { cues, language: 'en', tidy: {} } as unknown as Parameters<typeof api.read>[0];
  return api.read(talk, cues.at(-1)?.end ?? 0);
};

/** What is done to what comes from outside, each with input that was made to hold it up. */
const ATTACKS: Record<string, () => unknown> = {
  'a cue of 50,000 dashes': () => readTalk(vtt(['Hello to all.', '-'.repeat(50_000), 'And bye.'])),
  'a cue of one word of 50,000 letters': () => readTalk(vtt(['Hello.', 'w'.repeat(50_000)])),
  'cues of dots, commas and brackets': () =>
    readTalk(vtt(['.', ',', '[', '(', '{', '<', '&', '#', '>>', '…'].map((c) => c.repeat(20_000)))),
  'a cue of 50,000 line ends': () => readTalk(vtt(['Hello.', 'a\n '.repeat(20_000)])),
  'text without times and without ends': () => readTalk('and so it goes on '.repeat(3_000)),
  'blank lines between lines that are no cues': () =>
    readCaptions(`00:01:02,500 --> 00:01:03,000\n${'…&</c>\n\n\n'.repeat(30_000)}`),
  'tags of a feed that have no end': () =>
    readFeed(feed(`<entry><title>${'<a b="'.repeat(100_000)}</title></entry>`), BASE, '2026-01-01'),
  'a talk of sentences of one word': () =>
    readTalk(vtt(Array.from({ length: 200 }, () => 'One? Two. '.repeat(40)))),
  'addresses of 50,000 slashes': () => {
    for (let i = 0; i < 20; i++) canonicalAddress(`${BASE}${'/'.repeat(50_000)}x`);
    return cleanHtml(`<a href="${BASE}${'/'.repeat(50_000)}x">x</a>`.repeat(20), BASE);
  },
  'nested elements': () => cleanHtml('<div>'.repeat(100_000), BASE),
  'elements side by side': () => cleanHtml('<b> </b>'.repeat(200_000), BASE),
  'end tags of nothing': () => cleanHtml('<div></x>'.repeat(50_000), BASE),
  'formatting that is never closed': () =>
    cleanHtml(Array.from({ length: 2000 }, (_, i) => `<b id=${i}><p>x`).join(''), BASE),
  'a tag that never ends': () => cleanHtml(`<a ${'x="'.repeat(100_000)}`, BASE),
  'comments that never end': () => cleanHtml('<!--'.repeat(100_000), BASE),
  '100,000 feed links': () => {
    const page = readPage(
      Array.from(
        { length: 100_000 },
        (_, i) => `<link rel=alternate type=application/rss+xml href=/${i}>`
      ).join(''),
      BASE
    );
    assert.equal(page.feeds.length, 10);
  },
  'JSON-LD as deep as it goes': () =>
    readPage(`<script type="application/ld+json">${'['.repeat(200_000)}</script>`, BASE),
  'a title of a million letters': () => {
    const { entries } = readFeed(feed(entry('t'.repeat(1_000_000), 'x')), BASE, '2026-01-01');
    assert.ok((entries[0]?.title.length ?? 0) <= 1_000);
  },
  'a description of 50,000 tabs': () => {
    const read = readFeed(feed(entry('T', `a${'\t'.repeat(50_000)}b`)), BASE, '2026-01-01');
    const text = htmlText(read.entries[0]?.html ?? '');
    return textToHtml(tidyDescription(text));
  },
  'a description typed with 50,000 tabs': () => htmlText(`<p>a${'\t\n '.repeat(50_000)}b</p>`),
  'entities within entities': () =>
    readFeed(
      `<!DOCTYPE x [<!ENTITY a "${'b'.repeat(1000)}"><!ENTITY c "${'&a;'.repeat(1000)}">]>${feed(entry('&c;', '&c;'))}`,
      BASE,
      '2026-01-01'
    ),
  'Markdown of brackets': () => readMarkdown('[!['.repeat(3_000)),
  'Markdown of stars': () => readMarkdown('*a **b '.repeat(3_000)),
  'Markdown of quotations': () => readMarkdown('>'.repeat(3_000)),
  'a name of 50,000 quotation marks': () =>
    writeMessage({
      from: { name: '"'.repeat(50_000), address: '"'.repeat(50_000) },
      to: 'a@x.example',
      subject: '"'.repeat(50_000),
      messageId: '>'.repeat(50_000),
      date: new Date(0),
      text: ''
    })
};

for (const [name, attack] of Object.entries(ATTACKS))
  test(`${name}: in a moment, or refused in words`, () => {
    endsSoon(() => {
      try {
        attack();
      } catch (error) {
        assert.ok(error instanceof Error && error.name !== 'RangeError', String(error));
      }
    });
  });

test('captions without end are refused before they are read', () => {
  endsSoon(() =>
    assert.throws(
      () => readCaptions(`WEBVTT\n\n${'00:00.000 --> 00:01.000\nx\n\n'.repeat(1_000_000)}`),
      (error) => error instanceof CaptionError && /more than 50,000/.test(error.message)
    )
  );
});

test('text of people stays as it is', () => {
  const talk = 'Well — this is a “normal” sentence, with 1,000 threads!\n\n'.repeat(50);
  assert.equal(tame(talk, 100_000), talk);
  fc.assert(
    fc.property(fc.string({ maxLength: 190 }), (text) => {
      assert.equal(tame(text, 1_000), text);
    })
  );
  assert.equal(tame('w'.repeat(500), 1_000).length, 200);
  assert.equal(tame(`a${'-'.repeat(500)}b`, 1_000), `a${'-'.repeat(200)}b`);
});

test('pages that people write are parsed, others are told as text', () => {
  const chapter =
    '<h2>One</h2><ul><li>A <b>bold</b> word<li>Another</ul><table><tr><td>1<td>2</table>';
  assert.equal(markupProblem(chapter.repeat(1_000)), null);
  assert.equal(markupProblem('<p>Not closed'.repeat(5_000)), null);
  const { html } = cleanHtml(`${'<div>'.repeat(600)}Told <i>as</i> text`, BASE);
  assert.match(html, /^<p>Told\s+as text<\/p>$/);
});
