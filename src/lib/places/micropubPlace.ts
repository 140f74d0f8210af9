import { z } from 'zod';
import type { Payload } from '$lib/core/delivery/payload.ts';
import { allowanceSchema } from '$lib/core/model/allowance.ts';
import { PlaceError, rightSchema, type Place, type Right } from '$lib/core/model/place.ts';
import { FeedPlace } from './feed.ts';
import { readKeyFacts } from './keyFacts.ts';
import type { Capabilities } from './place.ts';
import { understood } from './understood.ts';
import { sendTo, type SendRequest, type Sent } from './wire.ts';

/** Items looked through for a key, newest first. */
const MAX_SEARCHED = 400;

const sourceSchema = z.object({ properties: z.record(z.string(), z.array(z.unknown())) });
const listSchema = z.object({
  items: z.array(sourceSchema),
  paging: z.object({ after: z.union([z.string(), z.number()]).transform(String) }).nullish()
});
const categoriesSchema = z.object({ categories: z.array(z.string()).nullish() });
const configSchema = z.object({ allowance: allowanceSchema.nullish() });

/** Whether a place says that it does not have a query, which is optional. */
const isUnsupported = (error: unknown): boolean =>
  error instanceof PlaceError &&
  (error.problem.kind === 'not-found' || error.problem.kind === 'refused');

/** Micropub does not say how a place tells that nothing stands at an address: many refuse the request. */
const isNothingThere = ({ problem }: PlaceError): boolean =>
  problem.kind === 'not-found' || (problem.kind === 'refused' && problem.status === 400);

/** Microformats2 properties, as Micropub has them. */
export type Properties = z.infer<typeof sourceSchema>['properties'];

export const first = (properties: Properties, name: string): string =>
  String(properties[name]?.[0] ?? '');

/**
 * What blogs and channels that take Micropub (W3C Recommendation of 23 May 2017) have in common.
 * They are read by their feeds.
 */
export abstract class MicropubPlace extends FeedPlace {
  constructor(
    linked: Place,
    protected readonly key: string
  ) {
    super(linked);
  }

  override async fetchCapabilities(signal?: AbortSignal): Promise<Capabilities> {
    const look = await super.fetchCapabilities(signal);
    if (!this.key) return look;
    const { rights, ...rest } = await this.grants(signal);
    return { ...look, ...rest, rights: ['read', ...rights] };
  }

  /** What the key may do and until when, the categories on offer, and what may still be placed. */
  async grants(
    signal?: AbortSignal
  ): Promise<Pick<Capabilities, 'rights' | 'keyEnds' | 'categories' | 'allowance'>> {
    const [{ rights, keyEnds }, categories, allowance] = await Promise.all([
      this.#keyFacts(signal),
      this.#categories(signal),
      this.#allowance(signal)
    ]);
    return { rights, keyEnds, categories, allowance };
  }

  async remove(url: string, _key?: string, _payload?: Payload): Promise<void> {
    await this.micropub({ action: 'delete', url });
  }

  async #keyFacts(signal?: AbortSignal): Promise<{ rights: Right[]; keyEnds: string | null }> {
    // Where a place names no token endpoint, its configuration shows at least that the key is good.
    const url = this.linked.tokenEndpoint || `${this.linked.micropub}?q=config`;
    const { body } = await sendTo({ url, method: 'GET', key: this.key }, signal);
    const { scope, keyEnds } = readKeyFacts(body, url);
    if (scope === null) return { rights: ['create', 'update', 'delete'], keyEnds };
    return { rights: scope.flatMap((name) => rightSchema.safeParse(name).data ?? []), keyEnds };
  }

  async #categories(signal?: AbortSignal): Promise<string[]> {
    const url = `${this.linked.micropub}?q=category`;
    try {
      const { body } = await sendTo({ url, method: 'GET', key: this.key }, signal);
      return understood(categoriesSchema, body, url).categories ?? [];
    } catch (error) {
      // The query is optional in Micropub; without it categories are typed.
      if (isUnsupported(error)) return [];
      throw error;
    }
  }

  async #allowance(signal?: AbortSignal): Promise<Capabilities['allowance']> {
    const url = `${this.linked.micropub}?q=config`;
    const asOf = new Date().toISOString();
    try {
      const { body } = await sendTo({ url, method: 'GET', key: this.key }, signal);
      const { allowance } = understood(configSchema, body, url);
      // Most places have none.
      return allowance ? { ...allowance, asOf } : null;
    } catch (error) {
      if (isUnsupported(error)) return null;
      throw error;
    }
  }

  protected async *sources(): AsyncGenerator<Properties> {
    let after = '';
    for (let seen = 0; seen < MAX_SEARCHED;) {
      const url = new URL(this.linked.micropub);
      url.searchParams.set('q', 'source');
      url.searchParams.set('limit', '50');
      if (after) url.searchParams.set('after', after);
      const { body } = await sendTo({ url: url.href, method: 'GET', key: this.needKey() });
      const { items, paging } = understood(listSchema, body, url.href);
      for (const { properties } of items) yield properties;
      seen += items.length;
      if (!paging || items.length === 0) return;
      after = paging.after;
    }
  }

  /** @returns null where nothing stands at the address */
  protected async source(url: string, signal?: AbortSignal): Promise<Properties | null> {
    const asked = new URL(this.linked.micropub);
    asked.searchParams.set('q', 'source');
    asked.searchParams.set('url', url);
    try {
      const { body } = await sendTo(
        { url: asked.href, method: 'GET', key: this.needKey() },
        signal
      );
      return understood(sourceSchema, body, asked.href).properties;
    } catch (error) {
      if (error instanceof PlaceError && isNothingThere(error)) return null;
      throw error;
    }
  }

  protected async create(properties: Properties): Promise<string> {
    const sent = await this.micropub({ type: ['h-entry'], properties });
    if (sent.location) return sent.location;
    const { micropub: url } = this.linked;
    throw new PlaceError({ kind: 'server-error', url, detail: 'No address came back.' });
  }

  protected micropub(json: unknown): Promise<Sent> {
    const request: SendRequest = {
      url: this.linked.micropub,
      method: 'POST',
      key: this.needKey(),
      json
    };
    return sendTo(request);
  }

  protected needKey(): string {
    if (!this.key) throw new PlaceError({ kind: 'key-missing', url: this.linked.url });
    return this.key;
  }
}
