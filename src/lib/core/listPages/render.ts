import type { Element } from 'hast';
import { h } from 'hastscript';
import { textToHtml } from '../article/template/description.ts';
import { timeCode } from '../chapters/chapter.ts';
import { onLines, writeHtml } from '../markup/html.ts';
import type { ListEntry } from './entries.ts';
import type { ListPage } from './listPage.ts';

/** Characters of a summary. */
const SUMMARY = 200;

/** The text of a page as HTML, not yet cleaned: its intro, then its entries under their headings. */
export function renderListPage(page: ListPage, entries: readonly ListEntry[]): string {
  // Plain English would have the month in front of the day.
  const language = page.language === 'en' ? 'en-GB' : page.language;
  const format = (options: Intl.DateTimeFormatOptions) => {
    const { format } = new Intl.DateTimeFormat(language, { timeZone: 'UTC', ...options });
    return (date: string | null) => (date ? format(new Date(date)) : '');
  };
  const day = format({ dateStyle: 'long' });
  const groupOf = {
    none: () => '',
    year: format({ year: 'numeric' }),
    month: format({ year: 'numeric', month: 'long' })
  }[page.groups];
  const blocks: Element[] = [];
  for (const [heading, members] of grouped(entries, (entry) => groupOf(entry.date))) {
    if (heading) blocks.push(h('h2', heading));
    if (page.style === 'lines') {
      const rows = members.map((entry) => {
        const meta = metaOf(entry);
        return h('li', [linkOf(entry), ...(meta.length > 0 ? [' · ', ...meta] : [])]);
      });
      blocks.push(h('ul', ['\n', ...onLines(rows), '\n']));
    } else blocks.push(...members.flatMap(withPicture));
  }
  const list = writeHtml(onLines(blocks));
  const intro = page.intro.trim() ? textToHtml(page.intro) : '';
  return [intro, list].filter(Boolean).join('\n');

  function metaOf({ date, seconds }: ListEntry): (Element | string)[] {
    const parts: (Element | string)[] = [];
    if (page.hasDates && date) parts.push(h('time', { dateTime: date.slice(0, 10) }, day(date)));
    if (page.hasLengths && seconds) parts.push(timeCode(seconds));
    return parts.flatMap((part, i) => (i > 0 ? [' · ', part] : [part]));
  }

  function withPicture(entry: ListEntry): Element[] {
    const { picture, url, summary } = entry;
    const meta = metaOf(entry);
    const size =
      picture?.width && picture.height ? { width: picture.width, height: picture.height } : {};
    return [
      h('h3', linkOf(entry)),
      ...(picture
        ? [
            h(
              'figure',
              h(
                'a',
                { href: url },
                h('img', { src: picture.url, alt: '', ...size, loading: 'lazy' })
              )
            )
          ]
        : []),
      ...(meta.length > 0 ? [h('p', meta)] : []),
      ...(summary.trim() ? [h('p', shortened(summary))] : [])
    ];
  }
}

const linkOf = ({ url, title }: ListEntry): Element => h('a', { href: url }, title || url);

/** Entries under their headings, both in the order in which they come. */
function grouped(
  entries: readonly ListEntry[],
  headingOf: (entry: ListEntry) => string
): Map<string, ListEntry[]> {
  const groups = new Map<string, ListEntry[]>();
  for (const entry of entries) {
    const heading = headingOf(entry);
    const group = groups.get(heading);
    if (group) group.push(entry);
    else groups.set(heading, [entry]);
  }
  return groups;
}

function shortened(text: string): string {
  const line = text
    .replace(/https?:\/\/\S+/g, '')
    .replace(/\s+/g, ' ')
    .trim();
  if (line.length <= SUMMARY) return line;
  const cut = line.lastIndexOf(' ', SUMMARY);
  return `${line.slice(0, cut > 0 ? cut : SUMMARY)}…`;
}
