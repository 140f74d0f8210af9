import { compose, finished } from '../../src/lib/core/article/template/compose.ts';
import { defaultTemplate, templateSchema } from '../../src/lib/core/article/template/template.ts';
import { readCaptions } from '../../src/lib/core/captions/read.ts';
import { cleanHtml } from '../../src/lib/core/feeds/clean.ts';
import { readPage } from '../../src/lib/core/feeds/page.ts';
import { readFeed } from '../../src/lib/core/feeds/read.ts';
import { readLaneFile } from '../../src/lib/core/lanes/laneFile.ts';
import { readSheet, writeSheet } from '../../src/lib/core/lanes/sheet.ts';
import { readMessage, writeMessage } from '../../src/lib/core/mail/message.ts';
import { readHtml } from '../../src/lib/core/markup/html.ts';
import { postBlocks } from '../../src/lib/core/markup/postBlocks.ts';
import { anItem } from '../../src/lib/core/testing.ts';
import { htmlText } from '../../src/lib/core/text/html.ts';
import { talkApi } from '../../src/lib/workers/talkApi.ts';

export interface Reader {
  /** Pieces of what it reads, of which inputs are put together. */
  pieces: readonly string[];
  /** What stands around them, `%` being their place. */
  around: readonly string[];
  read: (input: string) => unknown;
}

const BASE = 'https://x.example/';
const ITEM = anItem({ id: 'v', kind: 'video', title: 'Reeds', author: 'Loomworks' });
const talks = talkApi();

const MARKUP = [
  ...['<div>', '</div>', '<p>', '<b>', '</b>', '<a href="', '">', '<i id=x>', '<table><tr><td>'],
  ...['<!--', '-->', '<![CDATA[', ']]>', '<svg>', '<math><mi>', '<template>', '<script>', '<li>'],
  ...['<img src=x onerror=1 ', '&amp;', '&#x', '&', '<', '>', '"', "'", '=', '/', ' ', '\n', '\t'],
  ...[
    '</script>',
    '<style>',
    '<iframe src="https://v.example/1">',
    '<h2>',
    'word ',
    'ä',
    '\0',
    '😀'
  ],
  ...['javascript:', 'data:text/html,', '<select><option>', '<form>', '<pre>', '<nobr>', '<font>']
];
const CAPTIONS = [
  ...['00:00.000 --> 00:01.000\n', '\n\n', '\n', '1\n', '00:01:02,500 --> 00:01:03,000\n', 'word '],
  ...[
    '<c.x>',
    '</c>',
    '<00:00.500>',
    '<v Ann>',
    'NOTE ',
    'STYLE\n',
    '::cue{',
    '&lt;',
    '[music]',
    '-'
  ],
  ...['>> ', '♪', '.', '?', ', and ', 'um ', 'the the ', '10:00 ', '(', ')', '—', ' ', 'ANN: ', '…']
];

const around = (...forms: string[]): string[] => ['%', ...forms];
const atom = (content: string): string =>
  `<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom"><title>F</title><id>${BASE}</id>${content}</feed>`;

/**
 * Everything that reads what comes from outside, as the application does. Markdown is not among it: only
 * the command line reads that, from the user's own files.
 */
export const READERS: Record<string, Reader> = {
  feeds: {
    pieces: [
      ...MARKUP,
      ...['<entry>', '</entry>', '<title>', '</title>', '<media:group>', '<item>', '</item>'],
      ...['<link href="', '{"items":[', '{"title":"', '"},', ']}', '[', '{', '<!ENTITY a "']
    ],
    around: around(
      atom('%'),
      atom(`<entry><id>1</id><title>%</title></entry>`),
      atom(`<entry><id>1</id><content type="html"><![CDATA[%]]></content></entry>`),
      `<rss version="2.0"><channel><title>F</title><item><description>%</description></item></channel></rss>`,
      `{"version":"https://jsonfeed.org/version/1.1","title":"F","items":[%]}`
    ),
    read: (input) => readFeed(input, BASE, '2026-01-01T00:00:00Z')
  },
  pages: {
    pieces: [
      ...MARKUP,
      ...[
        '<link rel=alternate type=application/rss+xml href=/a>',
        '<meta property=og:title content='
      ],
      ...['<script type="application/ld+json">', '{"@type":"VideoObject",', '"a":[', '{', '}', '[']
    ],
    around: around('<script type="application/ld+json">%</script>'),
    read: (input) => readPage(input, BASE)
  },
  html: {
    pieces: MARKUP,
    around: around('<p>%</p>', '<a title="%">'),
    read: (input) => {
      const { html } = cleanHtml(input, BASE);
      return [htmlText(input), postBlocks(readHtml(html))];
    }
  },
  posts: {
    pieces: [...MARKUP, '{{ video.title }}', '{a|b}', '{', '|', '}}', '{% for i in (1..9) %}'],
    around: around('<b>%'),
    read: (input) => {
      const template = templateSchema.safeParse({
        ...defaultTemplate,
        blocks: [{ id: 'a', kind: 'text', on: true, text: input }]
      });
      const place = { title: 'N', url: BASE };
      const material = {
        ...{
          video: ITEM,
          description: '',
          paragraphs: [],
          article: null,
          chapters: [],
          seekTo: ''
        },
        ...{ channel: place, blog: place, players: [], now: '2026-01-01T00:00:00Z', key: 'k' }
      };
      return template.success
        ? compose(template.data, material)
        : finished(input.slice(0, 100_000), material);
    }
  },
  captions: {
    pieces: CAPTIONS,
    around: around('WEBVTT\n\n%', 'WEBVTT\n\n00:00.000 --> 00:09.000\n%\n'),
    read: (input) => readCaptions(input)
  },
  talks: {
    pieces: CAPTIONS,
    around: around('WEBVTT\n\n00:00.000 --> 00:09.000\n%\n'),
    // A talk of 100 KB is one of two hours, which has a bar of its own: here is a tenth of it.
    read: (input) => {
      const { cues } = readCaptions(input.slice(0, 10_000));
      return talks.read({ cues, tidy: {}, language: 'en' } as never, cues.at(-1)?.end ?? 0);
    }
  },
  lanes: {
    pieces: [
      '{',
      '}',
      '[',
      ']',
      '"a":',
      '"',
      ',',
      '1',
      'null',
      '\\',
      '"layouts":[',
      '{"sift":',
      'x'
    ],
    around: around('{"name":"%"}', '{"layouts":[%]}'),
    read: (input) => readLaneFile(input, 'id', 0)
  },
  sheets: {
    pieces: [
      'a',
      ',',
      ';',
      '\t',
      '"',
      '""',
      '\n',
      '\r\n',
      '=1+1',
      'https://c.example/a',
      '|',
      '@',
      ' '
    ],
    around: around('address,note\n%', '"%"'),
    read: (input) => {
      const { sheet } = readSheet(input);
      return sheet && writeSheet(sheet, new Map());
    }
  },
  messages: {
    pieces: [
      ...[
        'From: ',
        'Subject: ',
        'To: <',
        '>',
        '\r\n',
        '\n',
        '=?utf-8?q?',
        '?=',
        '=?utf-8?b?',
        ': '
      ],
      ...[
        'Content-Type: multipart/mixed; boundary=a',
        '--a',
        '--a--',
        '\r\n\r\n',
        '=C3',
        '"',
        '(',
        '\\'
      ]
    ],
    around: around('Subject: %\r\n\r\n', 'Content-Type: multipart/mixed; boundary=a\r\n\r\n%'),
    read: async (input) => {
      const person = { name: input.slice(0, 1_000), address: input.slice(0, 1_000) };
      writeMessage({
        ...{ from: person, to: input, subject: input, messageId: input, text: input },
        date: new Date(0)
      });
      return readMessage(input);
    }
  }
};

/** Errors by which readers refuse what they cannot read, told to the user in words. */
export const REFUSALS = new Set([
  'PlaceError',
  'CaptionError',
  'MarkdownError',
  'ZodError',
  'SyntaxError'
]);
