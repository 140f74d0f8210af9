import type { Piece, Scene } from './scenes.ts';

/** A bar of a chart: what it stands for, its number, and that number as it is written. */
export interface Bar {
  label: string;
  value: number;
  shown: string;
  /** When it is told. */
  line: number;
  share: number;
}

const [FEWEST, MOST] = [2, 8];

export interface Chart {
  /** What the numbers are of; empty where it is not said. */
  title: string;
  bars: Bar[];
}

/**
 * The figures that a scene tells of several things in the same unit, as bars: of a table, its first column of
 * numbers; of a comparison, the figure of each side.
 * @returns null where there are no such figures
 */
export function chartOf({ pieces, columns }: Pick<Scene, 'pieces' | 'columns'>): Chart | null {
  const told = columns > 1 ? tableRows(pieces, columns) : comparedRows(pieces);
  if (!told) return null;
  const read = told.rows.map(({ label, shown, line, share }) => {
    const figure = readFigure(shown);
    return figure && label ? { label, shown, line, share, ...figure } : null;
  });
  if (read.length < FEWEST || read.length > MOST || read.some((bar) => bar === null)) return null;
  const bars = read.filter((bar) => bar !== null);
  const [first] = bars;
  if (bars.some((bar) => bar.unit !== first?.unit)) return null;
  return { title: told.title, bars: bars.map(({ unit: _unit, ...bar }) => bar) };
}

type Row = Pick<Bar, 'label' | 'shown' | 'line' | 'share'>;

interface Told {
  title: string;
  rows: Row[];
}

function tableRows(pieces: readonly Piece[], columns: number): Told | null {
  const rows = Array.from({ length: Math.floor(pieces.length / columns) }, (_, r) =>
    pieces.slice(r * columns, (r + 1) * columns)
  ).slice(1);
  const numbers = Array.from({ length: columns - 1 }, (_, c) => c + 1).find((c) =>
    rows.every((row) => readFigure(row[c]?.text ?? ''))
  );
  if (rows.length === 0 || numbers === undefined) return null;
  return {
    title: pieces[numbers]!.text,
    rows: rows.map((row) => {
      const { line, share } = row[0]!;
      return { label: row[0]!.text, shown: row[numbers]!.text, line, share };
    })
  };
}

function comparedRows(pieces: readonly Piece[]): Told | null {
  const labels = pieces.filter((p) => p.role === 'label');
  const points = pieces.filter((p) => p.role === 'point');
  if (labels.length < FEWEST || labels.length !== points.length) return null;
  return {
    title: '',
    rows: labels.map(({ text, line, share }, i) => {
      const figure = points[i]!.text.match(FIGURE_IN)?.[0] ?? '';
      return { label: text, shown: figure.trim(), line, share };
    })
  };
}

/** A number with its unit within other words: "about 4.5 kg of wool" has "4.5 kg". */
const FIGURE_IN = /[€$£]?\d[\d.,]*(?:\s?(?:%|°C?|€|\p{L}+))?/u;
const FIGURE =
  /^(?<sign>[€$£]?)\s?(?<number>\d(?:[\d.,\s]*\d)?)\s*(?<unit>%|°C?|€|\p{L}[\p{L}\s²³/]*)?$/u;
const THOUSANDS = /^\d{1,3}(?:[.,\s]\d{3})+$/;

/** Reads "1,250 m" as 1250 of the unit "m". @returns null for anything else than one number over 0 */
function readFigure(text: string): { value: number; unit: string } | null {
  const found = FIGURE.exec(text.trim())?.groups;
  if (!found) return null;
  const number = found.number ?? '';
  const plain = THOUSANDS.test(number) ? number.replace(/[.,\s]/g, '') : number.replace(',', '.');
  const value = Number(plain);
  if (!Number.isFinite(value) || value <= 0) return null;
  return { value, unit: `${found.sign ?? ''}${(found.unit ?? '').trim().toLowerCase()}` };
}
