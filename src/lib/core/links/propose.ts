import { canonicalAddress } from '../feeds/address.ts';
import { cleanHtml } from '../feeds/clean.ts';
import type { Language } from '../text/language.ts';
import { sentencesIn } from '../text/sentencesIn.ts';
import { Senses } from './sense.ts';
import type { LinkTarget } from './targets.ts';
import { textRuns, type TextRun } from './textRuns.ts';

/** A word of a post, and what it may be linked to. */
export interface LinkProposal {
  of: LinkTarget['of'];
  url: string;
  title: string;
  isPaid: boolean;
  /** As it is written. */
  word: string;
  /** The whole text of its paragraph, and where the word begins in it. */
  paragraph: string;
  from: number;
  sentence: string;
  /** Whether its neighbours speak for this meaning. */
  isClear: boolean;
  /** Neighbours that speak for it. */
  because: string[];
}

/** Words for each link, and links that a short text may have. */
const [WORDS_PER_LINK, FEW] = [90, 3];
const WORD = /[\p{L}\p{N}\p{M}]+(?:['’.-][\p{L}\p{N}\p{M}]+)*/gu;

/**
 * Links that a post may have: each address once, and one a sentence, where the word stands with the meaning that
 * the link is for. Words of the glossary are proposed where they may mean something else, too, to be looked at.
 * What the post links to already is left out.
 * @param base address of the blog
 */
export function proposeLinks(
  html: string,
  targets: readonly LinkTarget[],
  language: Language,
  base: string
): LinkProposal[] {
  const { runs } = textRuns(html);
  const linked = new Set(cleanHtml(html, base).links.map(canonicalAddress));
  const open = targets.filter((target) => !linked.has(canonicalAddress(target.url)));
  const byStem = new Map<string, { target: LinkTarget; phrase: string[] }[]>();
  for (const target of open)
    for (const phrase of target.phrases) {
      const [first = ''] = phrase;
      const known = byStem.get(first);
      if (known) known.push({ target, phrase });
      else byStem.set(first, [{ target, phrase }]);
    }
  // An own post is only worth a link where the word clearly means its subject.
  const senses = new Senses(language);
  const found = runs
    .flatMap((run) => occurrencesIn(run, byStem, senses, language))
    .filter(({ of, isClear }) => isClear || of === 'glossary');
  const words = runs.reduce((sum, run) => sum + (run.text.match(WORD)?.length ?? 0), 0);
  return chosen(found, Math.max(FEW, Math.floor(words / WORDS_PER_LINK)));
}

/** Places where a phrase stands, the longest and those of the glossary first where several overlap. */
function occurrencesIn(
  run: TextRun,
  byStem: ReadonlyMap<string, { target: LinkTarget; phrase: string[] }[]>,
  senses: Senses,
  language: Language
): LinkProposal[] {
  const sentences = sentencesIn(run.text);
  const found: LinkProposal[] = [];
  for (const { node, at } of run.free) {
    const tokens = [...node.value.matchAll(WORD)].map((match) => ({
      from: match.index,
      to: match.index + match[0].length,
      stem: language.stem(match[0].toLowerCase().replaceAll('’', "'").replace(/'s$/, ''))
    }));
    for (let i = 0; i < tokens.length;) {
      const fitting = (byStem.get(tokens[i]?.stem ?? '') ?? [])
        .filter(({ phrase }) => phrase.every((stem, k) => tokens[i + k]?.stem === stem))
        .sort(
          (a, b) =>
            b.phrase.length - a.phrase.length ||
            Number(b.target.of === 'glossary') - Number(a.target.of === 'glossary')
        );
      for (const { target, phrase } of fitting) {
        const [first, last] = [tokens[i], tokens[i + phrase.length - 1]];
        if (!first || !last) continue;
        const word = node.value.slice(first.from, last.to);
        const from = at + first.from;
        const sentence = sentences.find((s) => s.from <= from && from < s.to)?.text ?? run.text;
        const { of, url, title, isPaid, meaning } = target;
        const known = target.remembered.get(word.toLowerCase());
        const { isClear, shared } = senses.of(word, run.text, {
          here: `${meaning.here} ${known?.here ?? ''}`,
          elsewhere: `${meaning.elsewhere} ${known?.elsewhere ?? ''}`
        });
        found.push({
          ...{ of, url, title, isPaid, word, from, isClear },
          paragraph: run.text,
          sentence,
          because: shared.slice(0, 3)
        });
      }
      i += fitting[0]?.phrase.length ?? 1;
    }
  }
  return found;
}

function chosen(found: readonly LinkProposal[], most: number): LinkProposal[] {
  const addresses = new Set<string>();
  const sentences = new Set<string>();
  const result: LinkProposal[] = [];
  // Of one word the glossary comes before posts, and what is clear before what is not.
  const order = found
    .map((proposal, at) => ({ proposal, at }))
    .sort(
      (a, b) =>
        Number(b.proposal.isClear) - Number(a.proposal.isClear) ||
        Number(b.proposal.of === 'glossary') - Number(a.proposal.of === 'glossary') ||
        a.at - b.at
    );
  for (const { proposal } of order) {
    const address = canonicalAddress(proposal.url);
    const sentence = `${proposal.paragraph} ${proposal.sentence}`;
    if (result.length >= most || addresses.has(address) || sentences.has(sentence)) continue;
    addresses.add(address);
    sentences.add(sentence);
    result.push(proposal);
  }
  return result.sort((a, b) => found.indexOf(a) - found.indexOf(b));
}
