import { ABOUT, MEASURES, NUMBER_WORD, UNNAMED } from '../../lang/en/figures.ts';
import { SUBORDINATORS } from '../../lang/en/clauses.ts';
import type { Talk } from '../../text/talk.ts';
import type { Candidate } from './candidate.ts';
import type { WrittenWord } from './written.ts';

/** A figure that is told of a thing, both in the words of the talk. */
export interface ToldFigure {
  name: string;
  value: string;
  /** What is measured in: the last word of the value. */
  unit: string;
  from: Candidate;
  /** Figures that its sentence tells; null where it says something else as well. */
  toldWith: number | null;
}

/** Fewest things whose figures make a table, and how many other sentences may lie between two. */
const TABLE = { least: 3, apart: 2 };
/** Most words of a thing's name. */
const NAME = 5;

/**
 * Figures of the same kind that are told of several things, one after the other: "The wool takes ten
 * minutes, the linen takes fifteen minutes and cotton takes eight minutes." Only things that are named
 * count; what a pronoun stands for is not guessed.
 * @returns runs of three figures or more, each of another thing, with the same unit
 */
export function comparisonsIn(talk: Talk, rows: readonly Candidate[]): ToldFigure[][] {
  const runs: ToldFigure[][] = [];
  let run: { figure: ToldFigure; row: number }[] = [];
  const close = () => {
    if (run.length >= TABLE.least) runs.push(run.map(({ figure }) => figure));
    run = [];
  };
  for (const [row, candidate] of rows.entries())
    for (const figure of figuresIn(talk, candidate)) {
      const last = run.at(-1);
      const goesOn =
        last &&
        last.figure.unit === figure.unit &&
        row - last.row <= TABLE.apart &&
        !run.some((told) => told.figure.name.toLowerCase() === figure.name.toLowerCase());
      if (!goesOn) close();
      run.push({ figure, row });
    }
  close();
  return runs;
}

/** The figures that a sentence tells of things it names. */
function figuresIn(talk: Talk, candidate: Candidate): ToldFigure[] {
  const clauses = clausesOf(candidate.words);
  const found = clauses.map((clause) => figureOf(talk, clause));
  const toldWith = found.some((figure) => figure === null) ? null : found.length;
  return found.flatMap((figure) => (figure ? [{ ...figure, from: candidate, toldWith }] : []));
}

/** A sentence at its commas and before "and" and "but". */
function clausesOf(words: readonly WrittenWord[]): WrittenWord[][] {
  const clauses: WrittenWord[][] = [[]];
  for (const word of words) {
    const open = clauses.at(-1) as WrittenWord[];
    if (/^(?:and|but)$/i.test(word.text) && open.length > 0) clauses.push([]);
    else if (!/^(?:and|but)$/i.test(word.text)) open.push(word);
    if (/[,.;!?]$/.test(word.text)) clauses.push([]);
  }
  return clauses.filter((clause) => clause.length > 0);
}

/** "the linen takes about fifteen minutes" as a name and its figure; null where it is anything else. */
function figureOf(
  talk: Talk,
  clause: readonly WrittenWord[]
): Pick<ToldFigure, 'name' | 'value' | 'unit'> | null {
  const plain = clause.map((w) => talk.plain[w.at] ?? '');
  const verb = plain.findIndex((word) => MEASURES.test(word));
  const name = clause.slice(0, verb);
  if (verb < 1 || name.length > NAME) return null;
  if (plain.slice(0, verb).some((word) => UNNAMED.test(word) || SUBORDINATORS.has(word)))
    return null;
  if (!name.some((w) => /^(?:NOUN|PROPN|NUM)$/.test(talk.tags[w.at] ?? ''))) return null;
  let at = verb + 1;
  while (ABOUT.test(plain[at] ?? '')) at++;
  const from = at;
  while (NUMBER_WORD.test(plain[at] ?? '') || (plain[at] === 'and' && at > from)) at++;
  // The figure and its unit end the clause; what goes on after it says something else.
  if (at === from || at !== clause.length - 1) return null;
  const value = clause.slice(from).map((w) => w.text);
  return {
    name: withoutMarks(name.map((w) => w.text).join(' ')),
    value: withoutMarks(value.join(' ')),
    unit: plain[at] ?? ''
  };
}

const withoutMarks = (text: string): string => {
  const clean = text.replace(/(?<![,.;:!?])[,.;:!?]+$/, '');
  return clean.replace(/\p{L}/u, (c) => c.toUpperCase());
};
