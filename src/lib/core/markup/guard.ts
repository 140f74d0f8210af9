import { Tokenizer } from 'htmlparser2';

/** Why markup is not parsed. */
export type MarkupProblem = 'too-long' | 'too-deep' | 'too-many-tags' | 'too-tangled';

/** Of what is parsed: characters, elements within elements, tags, and elements that a parser opens anew. */
export const MARKUP_LIMITS = { length: 2_000_000, depth: 500, tags: 40_000, rebuilt: 100_000 };

const names = (list: string): ReadonlySet<string> => new Set(list.split(' '));
const VOID = names(
  'area base br col embed hr img input link meta param source track wbr p li dt dd tr td th thead tbody tfoot option optgroup rp rt html head body'
);
/** Elements that a parser opens anew in each block while they are not closed (HTML, 13.2.4.3). */
const FORMATTING = names('a b big code em font i nobr s small strike strong tt u');
/** Elements within which formatting from without is not opened anew. */
const BOUNDARIES = names('applet caption marquee object select td template th button');

/**
 * A cheap look at markup before a full parser takes it, in one pass: what is nested deeper, or leaves
 * more open, than people write is not given to a parser that rebuilds it.
 */
export function markupProblem(html: string): MarkupProblem | null {
  if (html.length > MARKUP_LIMITS.length) return 'too-long';
  if (!hasManyTags(html)) return null;
  let problem: MarkupProblem | null = null;
  let [depth, tags, rebuilt] = [0, 0, 0];
  const open = new Map<string, number>();
  const formatting = [0];
  const nameAt = (start: number, end: number) => html.slice(start, end).toLowerCase();
  const opened = (name: string) => {
    tags++;
    if (FORMATTING.has(name)) formatting[formatting.length - 1]! += 1;
    else rebuilt += formatting.at(-1)!;
    if (BOUNDARIES.has(name)) formatting.push(0);
    if (!VOID.has(name)) {
      depth++;
      open.set(name, (open.get(name) ?? 0) + 1);
    }
    if (depth > MARKUP_LIMITS.depth) problem = 'too-deep';
    else if (tags > MARKUP_LIMITS.tags) problem = 'too-many-tags';
    else if (rebuilt > MARKUP_LIMITS.rebuilt) problem = 'too-tangled';
    if (problem) tokenizer.pause();
  };
  const closed = (name: string) => {
    if (FORMATTING.has(name))
      formatting[formatting.length - 1] = Math.max(0, formatting.at(-1)! - 1);
    if (BOUNDARIES.has(name) && formatting.length > 1) formatting.pop();
    const count = open.get(name) ?? 0;
    // An end tag of nothing that is open closes nothing.
    if (count === 0) return;
    open.set(name, count - 1);
    depth--;
  };
  const tokenizer = tokenizerOf({
    onopentagname: (start, end) => opened(nameAt(start, end)),
    onclosetag: (start, end) => closed(nameAt(start, end))
  });
  tokenizer.write(html);
  if (!problem) tokenizer.end();
  return problem;
}

/** So few that no limit is reached, whatever they are. */
const FEW = 300;

function hasManyTags(html: string): boolean {
  let count = 0;
  for (let at = html.indexOf('<'); at >= 0; at = html.indexOf('<', at + 1))
    if (++count > FEW) return true;
  return false;
}

/** The text of markup that is not parsed, its tags left out. */
export function textWithoutTags(html: string): string {
  let text = '';
  const tokenizer = tokenizerOf({
    ontext(start, end) {
      text += html.slice(start, end);
    },
    onopentagname() {
      text += ' ';
    }
  });
  tokenizer.write(html);
  tokenizer.end();
  return text.replace(/\s+/g, ' ').trim();
}

type Listener = ConstructorParameters<typeof Tokenizer>[1];

function tokenizerOf(listener: Partial<Listener>): Tokenizer {
  const nothing = () => {};
  return new Tokenizer(
    { xmlMode: false, decodeEntities: false },
    {
      onattribdata: nothing,
      onattribend: nothing,
      onattribentity: nothing,
      onattribname: nothing,
      oncdata: nothing,
      onclosetag: nothing,
      oncomment: nothing,
      ondeclaration: nothing,
      onend: nothing,
      onopentagend: nothing,
      onopentagname: nothing,
      onprocessinginstruction: nothing,
      onselfclosingtag: nothing,
      ontext: nothing,
      ontextentity: nothing,
      ...listener
    }
  );
}
