import { escapeHtml } from '../text/escapeHtml.ts';

/** A month of reach, in words and figures. */
export interface MonthReport {
  /** As `November 2026`. */
  month: string;
  /** What was counted, this month and the one before. */
  totals: { label: string; now: number; before: number | null }[];
  charts: { title: string; png: string }[];
  sections: ReportSection[];
}

export interface ReportSection {
  title: string;
  /** Said where there are no rows. */
  none: string;
  columns: string[];
  rows: string[][];
}

/** How much more or less than the month before. */
function change(now: number, before: number | null): string {
  if (before === null) return 'no figures';
  if (before === 0) return now === 0 ? 'the same' : 'none before';
  const percent = Math.round((100 * (now - before)) / before);
  return percent === 0 ? 'the same' : `${percent > 0 ? '+' : '−'}${Math.abs(percent)} %`;
}

const figure = (count: number): string => count.toLocaleString('en');

/** What a report tells, its totals first. */
export function reportSections({ month, totals, sections }: MonthReport): ReportSection[] {
  return [
    {
      title: 'In short',
      none: `Nothing is known of ${month}.`,
      columns: ['What', 'This month', 'Month before', 'Change'],
      rows: totals.map(({ label, now, before }) => [
        label,
        figure(now),
        before === null ? '–' : figure(before),
        change(now, before)
      ])
    },
    ...sections
  ];
}

/** A cell of a Markdown table: nothing in it ends the cell or begins a tag or link. */
const cell = (text: string): string =>
  text.replace(/\s+/g, ' ').replace(/[\\`*_[\]<>|]/g, (mark) => `\\${mark}`);

/** The report as Markdown (GitHub's tables), its charts within it as data addresses. */
export function reportMarkdown(report: MonthReport): string {
  const parts = [`# Reach in ${report.month}`];
  for (const { title, png } of report.charts) parts.push(`![${cell(title)}](${png})`);
  for (const { title, none, columns, rows } of reportSections(report)) {
    parts.push(`## ${title}`);
    if (rows.length === 0) {
      parts.push(none);
      continue;
    }
    const line = (cells: readonly string[]) => `| ${cells.map(cell).join(' | ')} |`;
    parts.push([line(columns), line(columns.map(() => '---')), ...rows.map(line)].join('\n'));
  }
  return `${parts.join('\n\n')}\n`;
}

/** The report as one HTML page that needs nothing else. */
export function reportHtml(report: MonthReport): string {
  const title = `Reach in ${escapeHtml(report.month)}`;
  const charts = report.charts.map(
    (chart) =>
      `<figure><img src="${escapeHtml(chart.png)}" alt="${escapeHtml(chart.title)}"><figcaption>${escapeHtml(chart.title)}</figcaption></figure>`
  );
  const sections = reportSections(report).map((section) => {
    const head = section.columns.map((name) => `<th scope="col">${escapeHtml(name)}</th>`).join('');
    const rows = section.rows.map(
      ([first = '', ...others]) =>
        `<tr><th scope="row">${escapeHtml(first)}</th>${others.map((one) => `<td>${escapeHtml(one)}</td>`).join('')}</tr>`
    );
    const table =
      rows.length > 0
        ? `<table><thead><tr>${head}</tr></thead><tbody>${rows.join('\n')}</tbody></table>`
        : `<p>${escapeHtml(section.none)}</p>`;
    return `<section><h2>${escapeHtml(section.title)}</h2>${table}</section>`;
  });
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${title}</title>
<style>body{font:16px/1.5 sans-serif;max-width:56rem;margin:2rem auto;padding:0 1rem}img{max-width:100%}figure{margin:0}table{border-collapse:collapse;width:100%}th,td{border-top:1px solid #8888;padding:.25rem .75rem .25rem 0;text-align:left;font-weight:400;vertical-align:top}thead th{font-weight:600}</style>
</head><body><h1>${title}</h1>
${[...charts, ...sections].join('\n')}
</body></html>
`;
}

/** The report as plain text, as mail without pictures has it. */
export function reportText(report: MonthReport): string {
  const parts = [`Reach in ${report.month}`];
  for (const { title, none, rows } of reportSections(report))
    parts.push(
      [title, ...(rows.length > 0 ? rows.map((row) => `  ${row.join(', ')}`) : [`  ${none}`])].join(
        '\n'
      )
    );
  return `${parts.join('\n\n')}\n`;
}
