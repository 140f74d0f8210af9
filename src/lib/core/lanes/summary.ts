import { plural } from '../text/plural.ts';
import type { JournalLine } from '../model/journal.ts';

/** What happened in a day, counted. */
export interface DaySummary {
  /** The local day, as ISO 8601 has it. */
  day: string;
  placed: { title: string; url: string }[];
  failed: { title: string; detail: string }[];
  removed: number;
  runs: number;
  waits: number;
  planned: { title: string; at: string }[];
}

/**
 * Counts the lines of one day. A thing that failed and then stood is told as placed only.
 * @param lines of the journal, oldest first
 */
export function summarise(
  day: string,
  lines: readonly JournalLine[],
  rest: Pick<DaySummary, 'waits' | 'planned'>
): DaySummary {
  const placed = new Map<string, { title: string; url: string }>();
  const failed = new Map<string, { title: string; detail: string }>();
  let [removed, runs] = [0, 0];
  for (const { what, key, title, url, problem } of lines) {
    if (what === 'published' || what === 'updated' || what === 'posted-by-hand') {
      placed.set(key, { title, url });
      failed.delete(key);
    } else if (what === 'publish-failed') {
      if (!placed.has(key)) failed.set(key, { title, detail: problem?.detail ?? '' });
    } else if (what === 'removed') {
      placed.delete(key);
      removed++;
    } else if (what === 'run' || what === 'run-failed') runs++;
  }
  return {
    day,
    placed: [...placed.values()],
    failed: [...failed.values()],
    removed,
    runs,
    ...rest
  };
}

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** A summary as the text and the HTML of a message. */
export function summaryTexts(summary: DaySummary): { subject: string; text: string; html: string } {
  const { day, placed, failed, removed, runs, waits, planned } = summary;
  const head = [
    plural(placed.length, 'item was placed', 'items were placed'),
    plural(failed.length, 'failed', 'failed'),
    plural(removed, 'was undone', 'were undone'),
    plural(runs, 'run of lanes', 'runs of lanes'),
    plural(waits, 'waits for review', 'wait for review')
  ].join(', ');
  const parts: [string, { title: string; beside: string }[]][] = [
    ['Published', placed.map(({ title, url }) => ({ title, beside: url }))],
    ['Failed', failed.map(({ title, detail }) => ({ title, beside: detail }))],
    ['Planned next', planned.map(({ title, at }) => ({ title, beside: at }))]
  ];
  const told = parts.filter(([, rows]) => rows.length > 0);
  return {
    subject: `Swift Twin, ${day}: ${plural(placed.length, 'item placed', 'items placed')}`,
    text: [
      `${head}.`,
      ...told.map(
        ([name, rows]) =>
          `${name}:\n${rows.map((r) => `- ${r.title}${r.beside ? `\n  ${r.beside}` : ''}`).join('\n')}`
      )
    ].join('\n\n'),
    html: [
      `<p>${escape(head)}.</p>`,
      ...told.map(
        ([name, rows]) =>
          `<h2>${name}</h2><ul>${rows
            .map(({ title, beside }) => `<li>${escape(title)} ${linked(beside)}</li>`)
            .join('')}</ul>`
      )
    ].join('\n')
  };
}

const linked = (text: string): string =>
  /^https?:\/\//.test(text) ? `<a href="${escape(text)}">${escape(text)}</a>` : escape(text);
