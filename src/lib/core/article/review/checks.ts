import { Parser } from 'htmlparser2';
import { visit } from 'unist-util-visit';
import { readHtml } from '../../markup/html.ts';
import type { Item } from '../../model/item.ts';
import type { ComposedPost, EmptyReason } from '../template/compose.ts';
import type { FillProblem } from '../template/fill.ts';
import type { BlockKind } from '../template/template.ts';

export const TITLE_LIMIT = 80;
export const EXCERPT_LIMIT = 300;

type Where = 'title' | 'slug' | 'excerpt' | 'author' | 'categories' | 'text' | { block: string };

/** What to look at before a post goes out; screens turn it into words. */
export type Finding = { where: Where; level: 'wrong' | 'look' } & (
  | { kind: 'no-title' | 'no-embed' | 'title-as-category' | 'excerpt-empty' | 'credit-missing' }
  | { kind: 'no-links' }
  /** Sentences that do not come from the talk of the video. */
  | { kind: 'not-from-talk'; count: number; text: string }
  | { kind: 'picture-without-text'; count: number }
  /** A frame that is not of a connected place, and does not go out. */
  | { kind: 'frame-left-out'; address: string }
  | { kind: 'title-long' | 'excerpt-long'; length: number; limit: number }
  | { kind: 'empty-block'; block: BlockKind; reason: EmptyReason }
  | { kind: 'field'; problem: FillProblem }
  | {
      kind: 'broken-html';
      detail: 'frame-without-address' | 'curly-quotes' | 'unclosed';
      text: string;
    }
);

/** Whether a video is someone else's, or its licence asks for credit. */
export const needsCredit = (
  video: Pick<Item, 'licence' | 'author'>,
  channelAuthor: string
): boolean =>
  /creativecommons\.org\/licenses\//.test(video.licence) ||
  (video.author !== '' && channelAuthor !== '' && video.author !== channelAuthor);

/** @param needsCredit the video is someone else's, or its licence asks for credit */
export function checkPost(post: ComposedPost, options: { needsCredit: boolean }): Finding[] {
  const findings: Finding[] = [];
  const { title, excerpt } = post;
  if (!title) findings.push({ where: 'title', level: 'wrong', kind: 'no-title' });
  if (title.length > TITLE_LIMIT) {
    findings.push({
      where: 'title',
      level: 'look',
      kind: 'title-long',
      length: title.length,
      limit: TITLE_LIMIT
    });
  }
  if (!excerpt) findings.push({ where: 'excerpt', level: 'look', kind: 'excerpt-empty' });
  if (excerpt.length > EXCERPT_LIMIT) {
    findings.push({
      where: 'excerpt',
      level: 'look',
      kind: 'excerpt-long',
      length: excerpt.length,
      limit: EXCERPT_LIMIT
    } as Finding);
  }
  if ([...post.categories, ...post.tags].some((name) => same(name, title))) {
    findings.push({ where: 'categories', level: 'wrong', kind: 'title-as-category' });
  }
  const { frames, links, silent } = contentOf(post.html);
  if (frames === 0) {
    findings.push({ where: { block: 'embed' }, level: 'wrong', kind: 'no-embed' });
  }
  if (links === 0) {
    findings.push({ where: 'text', level: 'look', kind: 'no-links' });
  }
  for (const address of post.leftOut)
    findings.push({ where: 'text', level: 'look', kind: 'frame-left-out', address });
  if (silent > 0) {
    findings.push({ where: 'text', level: 'wrong', kind: 'picture-without-text', count: silent });
  }
  const hasCredit = post.parts.some((part) => part.kind === 'credit' && part.empty === null);
  if (options.needsCredit && !hasCredit) {
    findings.push({ where: { block: 'credit' }, level: 'wrong', kind: 'credit-missing' });
  }
  for (const { where, problem } of post.problems) {
    findings.push({ where, level: levelOf(problem), kind: 'field', problem });
  }
  let isSilenceTold = false;
  for (const part of post.parts) {
    const where = { block: part.blockId };
    // That nothing is said is told once, not for each block that draws on the talk.
    const isListed = part.empty === 'no-captions' && isSilenceTold;
    isSilenceTold ||= part.empty === 'no-captions';
    if (part.empty && part.kind !== 'embed' && !isListed) {
      findings.push({
        where,
        level: 'look',
        kind: 'empty-block',
        block: part.kind,
        reason: part.empty
      });
    }
    for (const problem of part.problems) {
      findings.push({ where, level: levelOf(problem), kind: 'field', problem });
    }
    for (const broken of brokenHtml(part.html)) {
      findings.push({ where, level: 'wrong', kind: 'broken-html', ...broken });
    }
  }
  return findings;
}

/** How many players, links to elsewhere and pictures without a text alternative a post has. */
function contentOf(html: string): { frames: number; links: number; silent: number } {
  const content = { frames: 0, links: 0, silent: 0 };
  visit(readHtml(html), 'element', ({ tagName, properties }) => {
    if (tagName === 'iframe' && isWebAddress(properties.src)) content.frames++;
    if (tagName === 'a' && isWebAddress(properties.href)) content.links++;
    if (tagName === 'img' && !properties.alt) content.silent++;
  });
  return content;
}

const isWebAddress = (value: unknown): boolean =>
  typeof value === 'string' && /^https?:/i.test(value);

const levelOf = (problem: FillProblem): Finding['level'] =>
  problem.kind === 'empty-field' ? 'look' : 'wrong';

const same = (a: string, b: string): boolean =>
  a.trim().toLowerCase() === b.trim().toLowerCase() && a.trim() !== '';

const VOID = /^(area|base|br|col|hr|img|input|link|meta|source|track|wbr)$/;
const MAY_STAY_OPEN = /^(p|li|dt|dd|td|th|tr|thead|tbody|option)$/;

/**
 * What breaks a pasted embed code: typographic quotes, a lost address, a tag never closed. It is read
 * as it is written, since a tree would mend it.
 */
export function brokenHtml(
  html: string
): { detail: 'frame-without-address' | 'curly-quotes' | 'unclosed'; text: string }[] {
  const broken: ReturnType<typeof brokenHtml> = [];
  const open: string[] = [];
  const parser = new Parser({
    onopentag(name, attributes) {
      if (curly(attributes)) {
        broken.push({ detail: 'curly-quotes', text: name });
      } else if (name === 'iframe' && !/^https?:/i.test(attributes.src ?? '')) {
        broken.push({ detail: 'frame-without-address', text: name });
      }
      if (!VOID.test(name)) open.push(name);
    },
    onclosetag(name, isImplied) {
      const at = open.lastIndexOf(name);
      if (at >= 0) open.splice(at);
      if (isImplied && !VOID.test(name) && !MAY_STAY_OPEN.test(name)) {
        broken.push({ detail: 'unclosed', text: name });
      }
    }
  });
  parser.end(html);
  return broken;
}

/** Typographic quotes around an attribute's value: the address would begin with the quote. */
const curly = (attributes: Record<string, string>): boolean =>
  ['src', 'href', 'width', 'height'].some((name) => /^[“”„‘’]/.test(attributes[name] ?? ''));
