/** What the command line does, without the process around it: `twin.ts` gives it that. */
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { archiveCommand } from './archive.ts';
import { BadInput, whyUnreadable } from './badInput.ts';
import { extractArticle } from '../src/lib/core/article/extract/extract.ts';
import {
  LENGTH_NAMES,
  LENGTH_RANGE,
  type ArticleLength
} from '../src/lib/core/article/extract/length.ts';
import type { ArticleBlock } from '../src/lib/core/article/extract/article.ts';
import { markdownPost, type MarkdownPost } from '../src/lib/core/markup/markdownPost.ts';
import { MarkdownError } from '../src/lib/core/markup/markdown.ts';
import { phraseStandings } from '../src/lib/core/article/review/phrases.ts';
import { articleHtml, articleMarkdown } from '../src/lib/core/article/template/render.ts';
import { proposeExcerpt, proposeTitles } from '../src/lib/core/article/extract/proposals.ts';
import { reviewText, type ReviewFinding } from '../src/lib/core/article/review/review.ts';
import { EXCERPT_LIMIT, TITLE_LIMIT } from '../src/lib/core/article/review/checks.ts';
import { CaptionError } from '../src/lib/core/captions/cue.ts';
import { readCaptions, type CaptionFormat } from '../src/lib/core/captions/read.ts';
import { KEEP_ALL_SPEECH } from '../src/lib/core/captions/tidyOptions.ts';
import { chaptersVtt, descriptionList, spans } from '../src/lib/core/chapters/formats.ts';
import { proposeChapters } from '../src/lib/core/chapters/propose.ts';
import { segmentText } from '../src/lib/core/chapters/segment.ts';
import { decodeText } from '../src/lib/core/feeds/decode.ts';
import { detectLanguage } from '../src/lib/core/text/language.ts';
import { readTalk, type Talk } from '../src/lib/core/text/talk.ts';
import { proposePolls } from '../src/lib/core/updates/poll.ts';
import { proposeQuiz, type NoQuizReason } from '../src/lib/core/updates/quiz.ts';
import { shortText } from '../src/lib/core/updates/shortText.ts';
import type { UpdateSource } from '../src/lib/core/updates/source.ts';

const USAGE = `Usage: bin/twin COMMAND FILE [options]        FILE is - for standard input

  sentences FILE [--keep-fillers]             captions to JSON [{"start","end","text"}], seconds
  chapters FILE [--count N] [--format json|description|vtt]
  segment FILE [--count N]                    text, one sentence a line, to JSON {"starts":[0,…]}
  article FILE --title T [--length short|medium|long|N%] [--format md|html|json]
  check FILE.md [--phrase P]…                 JSON list of findings with line and column
  archive FILE.zip [--folder DIR]             what is in an archive and whether it is sound, as JSON;
                                              with --folder, its files go into a new folder
  update FILE.md --kind text|poll|quiz --limit N [--option-limit N] [--link URL]
                                              JSON: the text, polls or questions made from a post

Captions are WebVTT (.vtt), SRT (.srt) or plain text (.txt); --from vtt|srt|txt says which, and
--language the language (BCP 47) where it is not to be detected.`;

const OPTIONS = {
  from: { type: 'string' },
  count: { type: 'string' },
  format: { type: 'string' },
  title: { type: 'string' },
  length: { type: 'string' },
  language: { type: 'string' },
  phrase: { type: 'string', multiple: true },
  kind: { type: 'string' },
  limit: { type: 'string' },
  'option-limit': { type: 'string' },
  link: { type: 'string' },
  folder: { type: 'string' },
  'keep-fillers': { type: 'boolean' },
  help: { type: 'boolean', short: 'h' }
} as const;

const parse = (args: readonly string[]) =>
  parseArgs({ args: [...args], allowPositionals: true, options: OPTIONS });

/** One call: what was asked for, and what there is to read. */
interface Call {
  values: ReturnType<typeof parse>['values'];
  command: string | undefined;
  file: string | undefined;
  more: string[];
  stdin: () => Uint8Array;
  /** Says something beside the result, on a line of its own. */
  warn: (message: string) => void;
}

function oneOf<T extends string>(
  name: string,
  value: string | undefined,
  allowed: readonly T[],
  usual: T
): T {
  if (value === undefined) return usual;
  const found = allowed.find((a) => a === value);
  if (!found) throw new BadInput(`--${name} must be ${allowed.join(', ')}, not “${value}”`);
  return found;
}

function wholeNumber(
  { values }: Call,
  name: 'count' | 'limit' | 'option-limit'
): number | undefined {
  const value = values[name];
  if (value === undefined) return undefined;
  const count = Number(value);
  if (!Number.isInteger(count) || count < 1) {
    throw new BadInput(`--${name} must be a whole number from 1, not “${value}”`);
  }
  return count;
}

function oneFile(
  command: string | undefined,
  file: string | undefined,
  more: readonly string[]
): string {
  if (!file)
    throw new BadInput(
      `${command} needs a file${command === 'archive' ? '' : ', or - for standard input'}`
    );
  if (more.length > 0) throw new BadInput(`one file at a time: what is “${more[0]}”?`);
  return file;
}

function input({ command, file: given, more, stdin }: Call): { text: string; name: string } {
  const file = oneFile(command, given, more);
  const name = file === '-' ? 'standard input' : file;
  try {
    return { text: decodeText(file === '-' ? stdin() : readFileSync(file)), name };
  } catch (error) {
    throw new BadInput(`${name}: ${whyUnreadable(error)}`);
  }
}

function talkOf(call: Call): Talk {
  const { values, file } = call;
  const { text, name } = input(call);
  const ending = /\.(vtt|srt|txt)$/i.exec(file ?? '')?.[1]?.toLowerCase() as
    CaptionFormat | undefined;
  const format = values.from
    ? oneOf<CaptionFormat>('from', values.from, ['vtt', 'srt', 'txt'], 'vtt')
    : ending;
  try {
    const captions = readCaptions(text, format);
    const tidy = values['keep-fillers'] ? KEEP_ALL_SPEECH : undefined;
    const talk = readTalk(captions, { tidy, language: values.language });
    if (talk.sentences.length === 0)
      throw new CaptionError('There is no speech in the captions.', 1);
    return talk;
  } catch (error) {
    if (error instanceof CaptionError)
      throw new BadInput(`${name}, line ${error.line}: ${error.message}`);
    throw error;
  }
}

const json = (value: unknown): string => `${JSON.stringify(value, null, 2)}\n`;
const round = (seconds: number): number => Math.round(seconds * 1000) / 1000;
const endOf = (talk: Talk): number => talk.words.at(-1)?.end ?? 0;

function sentences(call: Call): string {
  return json(
    talkOf(call).sentences.map(({ start, end, text }) => ({
      start: round(start),
      end: round(end),
      text
    }))
  );
}

function chapters(call: Call): string {
  const format = oneOf('format', call.values.format, ['json', 'description', 'vtt'], 'json');
  const count = wholeNumber(call, 'count');
  const talk = talkOf(call);
  const { chapters: found, curve } = proposeChapters(talk, 0, count);
  if (format === 'description') return `${descriptionList(found)}\n`;
  if (format === 'vtt') return chaptersVtt(found, endOf(talk));
  return json({
    chapters: spans(found, endOf(talk)).map(({ start, end, title }) => ({
      start: round(start),
      end: round(end),
      title
    })),
    curve: curve.map(({ t, value }) => ({ t: round(t), value: Number(value.toFixed(4)) }))
  });
}

function segment(call: Call): string {
  const { text, name } = input(call);
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  while (lines.at(-1)?.trim() === '') lines.pop();
  if (lines.length === 0) throw new BadInput(`${name}: there is no text in it`);
  return json({ starts: segmentText(lines, wholeNumber(call, 'count')) });
}

/** `short`, `medium`, `long` or `30%`. */
function lengthOf(value: string | undefined): ArticleLength {
  const percent = /^(\d{1,3})%$/.exec(value ?? '')?.[1];
  if (percent === undefined) return oneOf('length', value, LENGTH_NAMES, 'medium');
  const { least, most } = LENGTH_RANGE;
  const length = Number(percent);
  if (length < least || length > most)
    throw new BadInput(`--length must be from ${least}% to ${most}%, not “${value}”`);
  return length;
}

function article(call: Call): string {
  const { values } = call;
  const length = lengthOf(values.length);
  const format = oneOf('format', values.format, ['md', 'html', 'json'], 'md');
  const { title } = values;
  if (!title?.trim()) throw new BadInput('article needs --title');
  const talk = talkOf(call);
  const { chapters: found } = proposeChapters(talk);
  const drawn = extractArticle(talk, { length, chapters: found });
  const excerpt = proposeExcerpt(drawn, EXCERPT_LIMIT);
  if (format === 'md') return articleMarkdown(title, drawn, excerpt, found);
  if (format === 'html') return `${articleHtml(title, drawn)}\n`;
  const plain = ({ text, start, end }: { text: string; start: number; end: number }) => ({
    text,
    start: round(start),
    end: round(end)
  });
  return json({
    title,
    titles: proposeTitles(talk, title),
    excerpt,
    language: talk.language.code,
    words: drawn.words,
    summary: drawn.summary.map(plain),
    takeaways: drawn.takeaways.map(plain),
    quote: drawn.quote && plain(drawn.quote),
    body: drawn.body.map((block) => plainBlock(block, plain)),
    chapters: spans(found, endOf(talk)).map((c) => ({
      ...c,
      start: round(c.start),
      end: round(c.end)
    })),
    leftOut: drawn.leftOut.map(({ sentence, reason }) => {
      const said = talk.sentences[sentence];
      return {
        reason,
        ...plain({ text: said?.text ?? '', start: said?.start ?? 0, end: said?.end ?? 0 })
      };
    })
  });
}

function plainBlock(
  block: ArticleBlock,
  plain: (s: { text: string; start: number; end: number }) => unknown
): unknown {
  switch (block.kind) {
    case 'heading':
      return { kind: 'heading', ...(plain(block) as object) };
    case 'paragraph':
      return { kind: 'paragraph', sentences: block.sentences.map(plain) };
    case 'list':
      return { kind: 'list', sentences: block.items.map(plain) };
    case 'picture':
      return block;
  }
}

function markdownInput(call: Call): MarkdownPost {
  const { text, name } = input(call);
  let post: MarkdownPost;
  try {
    post = markdownPost(text);
  } catch (error) {
    if (error instanceof MarkdownError)
      throw new BadInput(`${name}, line ${error.line}: ${error.message}`);
    throw error;
  }
  if (post.blocks.length === 0) throw new BadInput(`${name}: there is no text in it`);
  return post;
}

function check(call: Call): string {
  const post = markdownInput(call);
  const top = { line: 1, column: 1 };
  const found: ({ kind: string; message: string; line: number; column: number } & Record<
    string,
    unknown
  >)[] = [];
  const title = post.title;
  if (!title) found.push({ kind: 'no-title', message: 'The post has no title.', ...top });
  if (title.length > TITLE_LIMIT)
    found.push({
      kind: 'title-long',
      message: `The title has ${title.length} characters; ${TITLE_LIMIT} are shown.`,
      ...post.titleAt
    });
  if (!post.excerpt) found.push({ kind: 'excerpt-empty', message: 'There is no excerpt.', ...top });
  if (post.excerpt.length > EXCERPT_LIMIT)
    found.push({
      kind: 'excerpt-long',
      message: `The excerpt has ${post.excerpt.length} characters; ${EXCERPT_LIMIT} are enough.`,
      ...top
    });
  if (!post.hasEmbed)
    found.push({ kind: 'no-embed', message: 'The post does not show the video.', ...top });
  if (post.links === 0) found.push({ kind: 'no-links', message: 'The post has no links.', ...top });
  for (const point of post.picturesWithoutText)
    found.push({
      kind: 'picture-without-text',
      message: 'A picture has no text alternative.',
      line: point.line,
      column: point.column
    });
  const review = reviewText(post.blocks);
  for (const finding of review.findings) {
    const { spots, ...facts } = finding;
    const points = spots.map((s) => post.pointOf(s.block, s.from));
    found.push({ ...facts, message: messageOf(finding), ...(points[0] ?? top), places: points });
  }
  for (const standing of phraseStandings(call.values.phrase ?? [], title, post.blocks)) {
    const missing = Object.entries(standing.counts)
      .filter(([, n]) => n === 0)
      .map(([place]) => place);
    found.push({
      kind: 'phrase',
      message: `“${standing.phrase}” scores ${standing.score} of 100${missing.length > 0 ? `; it is not in: ${missing.join(', ')}` : ''}.`,
      ...top,
      ...standing
    });
  }
  found.sort((a, b) => a.line - b.line || a.column - b.column);
  return json(found);
}

function messageOf(finding: ReviewFinding): string {
  switch (finding.kind) {
    case 'word-often':
      return `“${finding.word}” stands ${finding.count} times, ${finding.times} times its usual rate.`;
    case 'phrase-often':
      return `“${finding.phrase}” stands ${finding.count} times.`;
    case 'sentences-open-alike':
      return `${finding.count} sentences begin with “${finding.opening}”.`;
    case 'paragraphs-open-alike':
      return `${finding.count} paragraphs begin with “${finding.opening}”.`;
    case 'sentence-long':
      return `This sentence has ${finding.words} words.`;
    case 'wordy':
      return finding.instead
        ? `“${finding.phrase}”: say “${finding.instead}”.`
        : `“${finding.phrase}” can go.`;
    case 'hard-to-read':
      return `The text reads at grade ${finding.grade}.`;
  }
}

/** Limits of a place that names none for its options. */
const USUAL_OPTION = 65;
const MAX_OPTIONS = 5;

const NO_QUIZ: Record<NoQuizReason, string> = {
  language: 'quizzes are made from English text only',
  'nothing-stated': 'the text tells no number, term, order or reason that could be asked for',
  'too-unsure': 'no question is sure enough to be sound',
  'too-long': 'no question fits into the limit'
};

function update(call: Call): string {
  const { values } = call;
  const kind = oneOf<'text' | 'poll' | 'quiz' | ''>(
    'kind',
    values.kind,
    ['text', 'poll', 'quiz'],
    ''
  );
  if (!kind) throw new BadInput('update needs --kind text, poll or quiz');
  const limit = wholeNumber(call, 'limit');
  if (limit === undefined)
    throw new BadInput('update needs --limit, the most characters of its text');
  const post = markdownInput(call);
  const detected = detectLanguage(post.blocks.map((b) => b.text).join('\n'));
  const source: UpdateSource = {
    title: post.title,
    kind: 'post',
    link: values.link ?? '',
    blocks: post.blocks,
    language: values.language ?? (detected === 'und' ? 'en' : detected)
  };
  const lineOf = ({ block, from }: { block: number; from: number }) =>
    block < 0 ? post.titleAt.line : post.pointOf(block, from).line;
  if (kind === 'text') {
    const { text, length, from } = shortText(source, { limit, seed: post.title });
    return json({ text, length, from: from.map(lineOf) });
  }
  const limits = {
    question: limit,
    option: wholeNumber(call, 'option-limit') ?? USUAL_OPTION,
    most: MAX_OPTIONS
  };
  if (kind === 'poll')
    return json(proposePolls(source, limits).map((p) => ({ ...p, from: lineOf(p.from) })));
  const { questions, none } = proposeQuiz(source, limits);
  if (none) call.warn(`no quiz: ${NO_QUIZ[none]}`);
  return json(
    questions.map(({ question, options, why, from, score }) => ({
      question,
      options,
      why: `${why} (line ${lineOf(from)})`,
      from: lineOf(from),
      score: Math.round(score * 100) / 100
    }))
  );
}

const archive = ({ values, command, file, more }: Call): Promise<string> =>
  archiveCommand(oneFile(command, file, more), values.folder);

const commands: Record<string, (call: Call) => string | Promise<string>> = {
  archive,
  sentences,
  chapters,
  segment,
  article,
  check,
  update
};

/** How a call ended: its exit status, and what goes to standard output and standard error. */
export interface Ended {
  status: 0 | 2;
  out: string;
  err: string;
}

/**
 * Runs one command.
 * @param args as they stand on the command line
 * @param stdin reads standard input; only called where the file is `-`
 * @returns status 2 and one line on `err` for a bad call or bad input
 */
export async function runTwin(args: readonly string[], stdin: () => Uint8Array): Promise<Ended> {
  let err = '';
  const warn = (message: string) => (err += `twin: ${message}\n`);
  try {
    const { values, positionals } = parsed(args);
    if (values.help) return { status: 0, out: `${USAGE}\n`, err };
    const [command, file, ...more] = positionals;
    const run = command ? commands[command] : undefined;
    if (!run)
      throw new BadInput(
        command ? `there is no command “${command}”; see --help` : 'which command? See --help'
      );
    const out = await run({ values, command, file, more, stdin, warn });
    return { status: 0, out, err };
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    warn(error.message);
    return { status: 2, out: error.out, err };
  }
}

function parsed(args: readonly string[]) {
  try {
    return parse(args);
  } catch (error) {
    throw new BadInput((error as Error).message.split('\n')[0] ?? '');
  }
}
