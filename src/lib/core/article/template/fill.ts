import { Liquid } from 'liquidjs';
import { escapeHtml } from '../../text/escapeHtml.ts';
import { hashOf } from '../../model/hash.ts';

export type FillProblem =
  | { kind: 'syntax'; detail: string }
  /** A `{one wording|another` without its closing brace. */
  | { kind: 'unclosed-variant'; detail: string }
  | { kind: 'unknown-field'; path: string }
  | { kind: 'empty-field'; path: string };

export interface Filled {
  text: string;
  problems: FillProblem[];
}

const LIMITS = { parseLimit: 20_000, renderLimit: 200, memoryLimit: 2_000_000 };
/** Milliseconds that all wordings of a post may take together. */
const POST_LIMIT = 400;

/** Time that is left for the wordings of one post: a layout may come from a stranger. */
export interface FillBudget {
  /** Milliseconds. */
  left: number;
}
export const newBudget = (): FillBudget => ({ left: POST_LIMIT });

function engineOf(more: ConstructorParameters<typeof Liquid>[0]): Liquid {
  const engine = new Liquid({ ...LIMITS, templates: {}, ...more });
  // Values are always escaped; expressions within filters escape the limits of time.
  for (const name of Object.keys(engine.filters))
    if (name === 'raw' || name.endsWith('_exp'))
      engine.registerFilter(name, () => {
        throw new Error(`The filter “${name}” is not available.`);
      });
  return engine;
}

const engines = {
  html: engineOf({ outputEscape: (value) => escapeHtml(String(value ?? '')) }),
  text: engineOf({})
};

/**
 * Fills fields and chooses variants.
 * @param into `html` escapes the values of fields; the template's own markup stands
 * @param seed chooses variants: the same for the same seed
 * @param budget shared by all wordings of a post
 */
export function fill(
  template: string,
  fields: object,
  into: 'html' | 'text',
  seed: string,
  budget: FillBudget = newBudget()
): Filled {
  const chosen = chooseVariants(template, seed);
  const unclosed = unclosedVariants(template);
  try {
    if (budget.left <= 0) throw new Error('The layout takes too long to fill.');
    const engine = engines[into];
    const parsed = engine.parse(chosen);
    const unknown = engine
      .globalFullVariablesSync(parsed)
      .flatMap((path) => problemOf(path, fields) ?? []);
    const text = renderWithin(budget, (limits) => engine.renderSync(parsed, fields, limits));
    return { text, problems: [...unclosed, ...unknown] };
  } catch (error) {
    const said = error instanceof Error ? (error.message.split('\n')[0] ?? '') : String(error);
    const detail = /limit exceeded/.test(said) ? 'it is too long, or repeats too often.' : said;
    return {
      text: into === 'html' ? escapeHtml(chosen) : chosen,
      problems: [{ kind: 'syntax', detail }]
    };
  }
}

/** What overran its time is tried once more: the machine may have stalled, and a stall does not repeat. */
function renderWithin(
  budget: FillBudget,
  render: (limits: { renderLimit: number }) => unknown
): string {
  const renderLimit = Math.min(LIMITS.renderLimit, budget.left);
  const timed = (): string => {
    const begun = performance.now();
    try {
      return String(render({ renderLimit }));
    } finally {
      budget.left -= Math.min(performance.now() - begun, renderLimit);
    }
  };
  try {
    return timed();
  } catch (error) {
    if (!isOutOfTime(error)) throw error;
    budget.left += renderLimit;
    return timed();
  }
}

const isOutOfTime = (error: unknown): boolean =>
  error instanceof Error && error.message.startsWith('template render limit exceeded');

function problemOf(path: string, fields: object): FillProblem | null {
  let value: unknown = fields;
  for (const key of path.split('.')) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, key)) {
      return { kind: 'unknown-field', path };
    }
    value = (value as Record<string, unknown>)[key];
  }
  return value === '' || value === 0 ? { kind: 'empty-field', path } : null;
}

const VARIANTS = /(?<!\{)\{(?![{%])([^{}|]*(?:\|[^{}|]*)+)\}(?!\})/g;

/** Replaces each `{one|another}` by one of its wordings. */
export function chooseVariants(template: string, seed: string): string {
  let nth = 0;
  return template.replace(VARIANTS, (_whole, inner: string) => {
    const wordings = inner.split('|');
    return wordings[hashOf(`${seed}/${nth++}`) % wordings.length] ?? '';
  });
}

const UNCLOSED = /(?<!\{)\{(?![{%])[^{}|]{0,200}\|[^{}]{0,200}(?=\{|$)/g;

const unclosedVariants = (template: string): FillProblem[] =>
  (template.replace(VARIANTS, '').match(UNCLOSED) ?? []).map((detail) => ({
    kind: 'unclosed-variant',
    detail: detail.slice(0, 60)
  }));

/** A text that stands as it is in a template: what would begin a field or a variant is left out. */
export const withoutFields = (text: string): string => text.replace(/[{}|]/g, '');
