import assert from 'node:assert/strict';
import test from 'node:test';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { gfm } from 'micromark-extension-gfm';
import { reachCsv } from './reachCsv.ts';
import { reportHtml, reportMarkdown, reportText, type MonthReport } from './report.ts';
import { emptyRow } from './reachRow.ts';

const REPORT: MonthReport = {
  month: 'November 2026',
  totals: [
    { label: 'Video views', now: 1240, before: 1000 },
    { label: 'Post visits', now: 12, before: null }
  ],
  charts: [{ title: 'By day', png: 'data:image/png;base64,AAAA' }],
  sections: [
    {
      title: 'Most reach',
      none: 'None.',
      columns: ['Title', 'Views'],
      rows: [['<b>Warp</b> | [a](javascript:alert(1))', '40']]
    },
    { title: 'Hardly found', none: 'None lags far behind.', columns: ['Title'], rows: [] }
  ]
};

test('a report is a page, Markdown or plain text, and titles stay text in each', () => {
  const html = reportHtml(REPORT);
  assert.match(html, /<td>1,240<\/td><td>1,000<\/td><td>\+24 %<\/td>/);
  assert.match(html, /&lt;b&gt;Warp/);
  assert.match(html, /<p>None lags far behind\.<\/p>/);
  const markdown = reportMarkdown(REPORT);
  const tree = fromMarkdown(markdown, {
    extensions: [gfm()],
    mdastExtensions: [gfmFromMarkdown()]
  });
  const tables = tree.children.filter(({ type }) => type === 'table');
  assert.equal(tables.length, 2);
  const read = JSON.stringify(tables[1]);
  assert.ok(read.includes('<b>Warp</b> | [a](javascript:alert(1))'));
  assert.ok(!/"type":"(?:link|html)"/.test(read));
  assert.match(reportText(REPORT), /Post visits, 12, –, no figures/);
});

test('figures are exported day by day, and no cell is a formula', () => {
  const row = {
    ...emptyRow('a', 'tube', 'video'),
    counters: { views: { days: [20_785, 20_787], totals: [5, 9], until: 20_787 } }
  };
  const title = '=1+1';
  const csv = reachCsv([
    { row, title, url: 'https://tube.example/1', place: 'Tube', published: null }
  ]);
  assert.deepEqual(csv.split('\r\n'), [
    'date,kind,title,address,place,counter,gained,total',
    "2026-11-28,video,'=1+1,https://tube.example/1,Tube,views,0,5",
    "2026-11-29,video,'=1+1,https://tube.example/1,Tube,views,2,7",
    "2026-11-30,video,'=1+1,https://tube.example/1,Tube,views,2,9"
  ]);
});
