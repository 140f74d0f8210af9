import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import { LogReader, type LogFindings, type LogQuestion } from './readLog.ts';
import { withSpan } from './span.ts';

const BLOG = 'https://blog.example/';
const READER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';
const QUESTION: LogQuestion = {
  pages: [`${BLOG}posts/warp`, `${BLOG}posts/twill`, `${BLOG}?p=7`],
  blogUrl: BLOG,
  own: {
    host: 'blog.example',
    hosts: new Set(['blog.example', 'tube.example']),
    videos: new Map([['tube.example/watch/1', 'video-1']]),
    tags: new Set()
  },
  ownVisits: { addresses: ['203.0.113.7', '2001:db8::/32'], marks: ['me=1'] },
  zone: 'Europe/Berlin',
  spans: []
};

/** A line in the Combined Log Format. */
function line(given: {
  at?: string;
  address?: string;
  target?: string;
  status?: number;
  method?: string;
  referrer?: string;
  agent?: string;
  more?: string;
}): string {
  const { at = '10/Oct/2026:13:55:36 +0000', address = '198.51.100.1', status = 200 } = given;
  const { target = '/posts/warp', method = 'GET', referrer = '-', agent = READER } = given;
  return `${address} - - [${at}] "${method} ${target} HTTP/1.1" ${status} 512 "${referrer}" "${agent}"${given.more ?? ''}\n`;
}

function read(log: string, question: Partial<LogQuestion> = {}): LogFindings {
  const reader = new LogReader({ ...QUESTION, ...question });
  reader.add(log);
  return reader.finish();
}

test('a visit is counted once, by page, source and local day', () => {
  const { counts, visits, hours, span } = read(
    line({ at: '10/Oct/2026:22:30:00 +0000', referrer: 'https://tube.example/watch/1?t=9' }) +
      line({ at: '10/Oct/2026:22:31:00 +0000' }) +
      line({ at: '10/Oct/2026:22:32:00 +0000', target: '/posts/twill/' }) +
      line({ at: '10/Oct/2026:23:40:00 +0000' })
  );
  assert.equal(counts.visits, 3);
  assert.equal(counts.again, 1);
  // Half past ten in UTC is the next day in Berlin.
  const day = Date.parse('2026-10-11') / 86_400_000;
  assert.deepEqual(visits, [
    { page: 0, source: 'video video-1', day, count: 1 },
    { page: 0, source: 'direct', day, count: 1 },
    { page: 1, source: 'direct', day, count: 1 }
  ]);
  assert.equal(hours[0]?.hours[22], 2);
  assert.equal(hours[0]?.hours[23], 1);
  assert.equal(span?.to, Date.parse('2026-10-10T23:40:00Z'));
});

test('link tags, other sites, other pages of the blog and pages with a query are told apart', () => {
  const { visits } = read(
    line({ address: 'a.example', target: '/posts/warp?utm_source=notes&utm_campaign=warp&x=1' }) +
      line({ address: 'b.example', referrer: 'https://search.example/find?q=warp' }) +
      line({ address: 'c.example', referrer: `${BLOG}posts/twill` }) +
      line({ address: 'd.example', target: '/?p=7&utm_source=mail' }) +
      line({ address: 'e.example', referrer: 'javascript:alert(1)' })
  );
  assert.deepEqual(
    visits.map(({ page, source }) => [page, source]),
    [
      [0, 'tags utm_campaign=warp&utm_source=notes'],
      [0, 'site search.example'],
      [0, 'blog'],
      [0, 'direct'],
      [2, 'tags utm_source=mail']
    ]
  );
});

test('what is left out is counted: bots, prefetches, one’s own visits, failures, other files', () => {
  const { counts, visits } = read(
    line({ agent: 'ExampleCrawler/2.1 (+https://crawler.example/bot.html)' }) +
      line({ agent: '-' }) +
      line({ more: ' "prefetch;prerender"' }) +
      line({ address: '203.0.113.7' }) +
      line({ address: '2001:db8:0:1::9' }) +
      line({ address: '198.51.100.9', target: '/posts/warp?me=1' }) +
      line({ address: '198.51.100.9', target: '/posts/twill', at: '10/Oct/2026:19:00:00 +0000' }) +
      line({ status: 404 }) +
      line({ method: 'HEAD' }) +
      line({ target: '/feed.xml' }) +
      'this is no line of a log\n'
  );
  assert.deepEqual(visits, []);
  assert.deepEqual(
    { ...counts },
    {
      lines: 11,
      unreadable: 1,
      known: 0,
      elsewhere: 1,
      failed: 2,
      prefetched: 1,
      bots: 2,
      hiddenBots: 0,
      own: 4,
      again: 0,
      visits: 0
    }
  );
});

test('a program in disguise is known by its haste, or by asking for the rules of robots', () => {
  const hasty = QUESTION.pages
    .concat(`${BLOG}posts/third`)
    .map((url, i) =>
      line({ target: url.slice(BLOG.length - 1), at: `10/Oct/2026:13:55:0${i} +0000` })
    )
    .join('');
  const pages = [...QUESTION.pages, `${BLOG}posts/third`];
  assert.equal(read(hasty, { pages }).counts.hiddenBots, 4);
  const asks = line({ target: '/robots.txt' }) + line({});
  assert.equal(read(asks).counts.hiddenBots, 1);
  // Somebody who reads several posts in ten minutes, with their pictures, is no program.
  const slow =
    line({}) +
    line({ target: '/style.css' }) +
    line({ target: '/posts/twill', at: '10/Oct/2026:13:59:00 +0000' });
  assert.equal(read(slow).counts.visits, 2);
});

test('Common Log Format, the name of the host in front, escaped quotes, carriage returns', () => {
  const log =
    '198.51.100.1 - frank [10/Oct/2026:13:55:36 -0700] "GET /posts/warp HTTP/1.0" 200 2326\r\n' +
    'blog.example:443 198.51.100.2 - - [10/Oct/2026:13:55:37 -0700] "GET /posts/warp HTTP/1.0" 200 1 "-" "Mozilla/5.0 \\"odd\\" Gecko/20100101 Firefox/140.0"\r\n';
  const { counts, span } = read(log, { ownVisits: { addresses: ['198.51.100.2'], marks: [] } });
  // Without the name of a browser nobody can say that it was one.
  assert.equal(counts.bots, 1);
  assert.equal(counts.own, 1);
  assert.equal(span?.from, Date.parse('2026-10-10T20:55:36Z'));
});

test('the same log again, or one that goes on from it, tells nothing twice', () => {
  const first =
    line({ address: 'a.example', at: '10/Oct/2026:13:55:30 +0000' }) +
    line({ address: 'b.example' });
  const told = read(first);
  const spans = withSpan([], told.span!);
  assert.equal(read(first, { spans }).counts.known, 2);
  const more = line({ address: 'c.example', at: '10/Oct/2026:13:56:00 +0000' });
  const goesOn = read(more, { spans });
  assert.equal(goesOn.counts.visits, 1);
  assert.equal(read(first + more, { spans }).counts.visits, 1);
  assert.equal(withSpan(spans, goesOn.span!).length, 2);
});

test('wherever a log is cut into pieces, it tells the same', () => {
  const log = Array.from({ length: 40 }, (_, i) =>
    line({
      address: `198.51.100.${i % 7}`,
      at: `10/Oct/2026:13:${String(10 + i).padStart(2, '0')}:00 +0000`,
      target: i % 3 ? '/posts/warp' : '/posts/twill'
    })
  ).join('');
  const whole = read(log);
  fc.assert(
    fc.property(fc.array(fc.nat(log.length), { maxLength: 12 }), (cuts) => {
      const reader = new LogReader(QUESTION);
      const at = [0, ...cuts.sort((a, b) => a - b), log.length];
      for (let i = 1; i < at.length; i++) reader.add(log.slice(at[i - 1], at[i]));
      assert.deepEqual(reader.finish(), whole);
    })
  );
});

test('any text is read to its end, and nothing of it is kept but counts', () => {
  fc.assert(
    fc.property(fc.array(fc.oneof(fc.string(), fc.constant(line({}).trim()))), (lines) => {
      const { counts } = read(lines.join('\n'));
      const { lines: all, unreadable, known, elsewhere, failed, prefetched } = counts;
      const { bots, hiddenBots, own, again, visits } = counts;
      const sum = unreadable + known + elsewhere + failed + prefetched + bots + hiddenBots;
      assert.equal(all, sum + own + again + visits);
    })
  );
  const endless = new LogReader(QUESTION);
  for (let i = 0; i < 40; i++) endless.add('x'.repeat(10_000));
  endless.add(`\n${line({})}`);
  const { counts, ...kept } = endless.finish();
  assert.deepEqual([counts.lines, counts.unreadable, counts.visits], [2, 1, 1]);
  assert.ok(!JSON.stringify(kept).includes('198.51.100'));
});
