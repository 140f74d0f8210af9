import { randomBytes } from 'node:crypto';
import { Hono, type Context } from 'hono';
import { z } from 'zod';
import type { World } from '../context.ts';
import { scopesOf, tokenFacts } from '../keys.ts';
import { UPDATE_KEYS, type NetworkKind } from './kinds.ts';
import { missingPage, streamPage, updatePage } from './pages.ts';
import { networkMedia } from './media.ts';
import { asObject, usesOf, type Update } from './update.ts';

const ACTIVITY = 'application/activity+json; charset=utf-8';
const DAY = 86_400_000;
const PAGE = 20;

const many = <T extends z.ZodType>(schema: T) =>
  z.union([z.array(schema), schema.transform((one) => [one])]).default([]);
const attachmentSchema = z.union([
  z.object({ type: z.literal('Image'), url: z.url(), name: z.string().default('') }),
  z.object({ type: z.literal('Video'), url: z.url(), name: z.string().default('') }),
  z.object({ type: z.literal('Link'), href: z.url(), name: z.string().default('') })
]);
const objectSchema = z.object({
  id: z.string().optional(),
  type: z.enum(['Note', 'Question']),
  context: z.string().default(''),
  inReplyTo: z.string().default(''),
  name: z.string().default(''),
  content: z.string().default(''),
  summary: z.string().default(''),
  tag: many(z.object({ type: z.literal('Hashtag'), name: z.string() })),
  attachment: many(attachmentSchema),
  oneOf: many(z.object({ name: z.string(), isRight: z.boolean().default(false) })),
  endTime: z.iso.datetime({ offset: true }).optional()
});
type Given = z.infer<typeof objectSchema>;
const activitySchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Create'), object: objectSchema }),
  z.object({ type: z.literal('Update'), object: objectSchema.extend({ id: z.string() }) }),
  z.object({
    type: z.literal('Delete'),
    object: z.union([z.string(), z.object({ id: z.string() }).transform((o) => o.id)])
  })
]);

let graphemes: Intl.Segmenter | null = null;
function count(text: string, linkWeight: number | null): number {
  graphemes ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' });
  const counted =
    linkWeight === null
      ? text
      : text.replace(/https?:\/\/\S*[^\s.,;:!?)\]"']/gi, 'x'.repeat(linkWeight));
  return [...graphemes.segment(counted)].length;
}

/** What of an update the network does not take, in words; null where it takes all of it. */
function overLimit(given: Given, { limits }: NetworkKind): string | null {
  const text = [given.content, ...given.tag.map((t) => t.name)].filter(Boolean).join(' ');
  const length = count(text, limits.linkWeight);
  const images = given.attachment.filter((a) => a.type === 'Image');
  if (length > limits.text) return `The text has ${length} characters; ${limits.text} are taken.`;
  if (given.tag.length > limits.hashtags) return `At most ${limits.hashtags} hashtags are taken.`;
  const clips = given.attachment.filter((a) => a.type === 'Video');
  if (clips.length > (limits.clip ? 1 : 0)) return 'So many clips are not taken.';
  if (given.inReplyTo && !limits.hasThreads) return 'Updates cannot follow each other here.';
  const isFirst = !given.inReplyTo;
  if (isFirst && images.length + clips.length === 0 && limits.picture === 'required')
    return 'A picture is needed here.';
  if (images.length > (limits.picture === 'none' ? 0 : 1)) return 'So many pictures are not taken.';
  if ([...images, ...clips].some((i) => !i.name.trim()))
    return 'A picture or clip needs a text alternative.';
  if (given.name && !limits.title) return 'Updates have no title here.';
  if (limits.title && count(given.name, null) > limits.title) return 'The title is too long.';
  if (given.attachment.some((a) => a.type === 'Link') && !limits.hasButton)
    return 'There are no buttons here.';
  if (given.type === 'Note') return given.content.trim() ? null : 'There is no text.';
  if (!limits.poll) return 'There are no polls here.';
  const { question, option, most } = limits.poll;
  if (count(given.content, null) > question)
    return `A question has at most ${question} characters.`;
  if (given.oneOf.length < 2 || given.oneOf.length > most)
    return `A poll has 2 to ${most} options.`;
  if (given.oneOf.some((o) => !o.name.trim() || count(o.name, null) > option))
    return `An option has 1 to ${option} characters.`;
  const right = given.oneOf.filter((o) => o.isRight).length;
  if (right > 0 && !limits.hasQuiz) return 'There are no quizzes here.';
  return right > 1 ? 'A quiz has one right answer.' : null;
}

/**
 * A network that speaks ActivityStreams 2.0 in the manner of ActivityPub's client protocol: activities
 * are posted to the outbox; what it takes is told in a document beside its actor.
 */
export function network(world: World, kind: NetworkKind): Hono {
  const app = new Hono();
  const base = `${world.origin}/${kind.path}/`;
  const refuse = (c: Context, status: 400 | 401 | 403 | 404, error: string, description: string) =>
    c.json({ error, error_description: description }, status);
  const own = () =>
    world.store.state.updates
      .filter((u) => u.network === kind.path)
      .toSorted((a, b) => b.created - a.created);
  const find = (address: string) =>
    own().find((u) => address === `${base}objects/${u.id}` || address === `${base}updates/${u.id}`);
  const today = () => own().filter((u) => u.created > world.now() - DAY).length;

  app.get('/', (c) => c.html(streamPage(kind, base, own(), world.now())));
  app.get('/updates/:id', (c) => {
    const update = own().find((u) => u.id === c.req.param('id'));
    return update
      ? c.html(updatePage(kind, base, update, own(), world.now()))
      : c.html(missingPage(kind, base), 404);
  });

  app.get('/actor', (c) =>
    c.body(
      JSON.stringify({
        '@context': 'https://www.w3.org/ns/activitystreams',
        ...{ id: `${base}actor`, type: 'Organization', name: kind.name, summary: kind.about },
        ...{ url: base, outbox: `${base}outbox`, inbox: `${base}inbox` },
        endpoints: {
          limits: `${base}limits.json`,
          tagCounts: `${base}tags.json`,
          uploadMedia: `${base}media`,
          oauthTokenEndpoint: `${base}token`
        }
      }),
      200,
      { 'content-type': ACTIVITY }
    )
  );
  app.get('/limits.json', (c) => {
    const { aDay, ...limits } = kind.limits;
    return c.json({
      ...limits,
      allowance: { most: aDay, per: 'day', left: Math.max(0, aDay - today()) }
    });
  });
  app.get('/token', (c) => {
    const scopes = scopesOf(c, world, UPDATE_KEYS);
    return scopes
      ? c.json(tokenFacts(world, scopes))
      : refuse(c, 401, 'unauthorized', 'The key is missing, unknown or has expired.');
  });
  app.get('/tags.json', (c) => {
    const names = (c.req.query('names') ?? '').split(',').filter(Boolean).slice(0, 60);
    return c.json(Object.fromEntries(names.map((name) => [name, usesOf(kind.path, name)])));
  });
  app.route('/media', networkMedia(world, kind, base));
  app.get('/objects/:id', (c) => {
    const update = own().find((u) => u.id === c.req.param('id'));
    return update
      ? c.body(JSON.stringify(asObject(update, base, world.now())), 200, {
          'content-type': ACTIVITY
        })
      : refuse(c, 404, 'not_found', 'There is no such update.');
  });

  app.get('/outbox', (c) => {
    const from = Math.max(0, Number(c.req.query('from')) || 0);
    const updates = own();
    return c.json({
      '@context': 'https://www.w3.org/ns/activitystreams',
      ...{ id: `${base}outbox?from=${from}`, type: 'OrderedCollectionPage' },
      totalItems: updates.length,
      orderedItems: updates
        .slice(from, from + PAGE)
        .map((u) => ({ type: 'Create', object: asObject(u, base, world.now()) })),
      ...(from + PAGE < updates.length && { next: `${base}outbox?from=${from + PAGE}` })
    });
  });

  app.post('/outbox', async (c) => {
    const scopes = scopesOf(c, world, UPDATE_KEYS);
    if (!scopes)
      return refuse(c, 401, 'unauthorized', 'The key is missing, unknown or has expired.');
    const parsed = activitySchema.safeParse(await c.req.json().catch(() => null));
    if (!parsed.success)
      return refuse(c, 400, 'invalid_request', 'This is no activity that is taken here.');
    const activity = parsed.data;
    if (activity.type === 'Delete') {
      const update = find(activity.object);
      if (!update) return refuse(c, 404, 'not_found', 'There is no such update.');
      await world.store.change((state) => {
        state.updates = state.updates.filter((u) => u.id !== update.id);
      });
      return c.body(null, 200);
    }
    const wrong = overLimit(activity.object, kind);
    if (wrong) return refuse(c, 400, 'invalid_request', wrong);
    const { inReplyTo } = activity.object;
    if (inReplyTo && !find(inReplyTo))
      return refuse(c, 404, 'not_found', 'What it follows is not there.');
    const fields = fieldsOf(activity.object);
    const now = world.now();
    if (activity.type === 'Update') {
      const update = find(activity.object.id);
      if (!update) return refuse(c, 404, 'not_found', 'There is no such update.');
      await world.store.change((state) => {
        const kept = state.updates.find((u) => u.id === update.id);
        if (kept) Object.assign(kept, fields, { updated: now });
      });
      return c.body(null, 200, { location: `${base}updates/${update.id}` });
    }
    if (world.store.state.faults.overQuota || today() >= kind.limits.aDay)
      return refuse(
        c,
        403,
        'quota_exceeded',
        `Today's allowance of ${kind.limits.aDay} is used up.`
      );
    const made: Update = {
      ...{ id: randomBytes(6).toString('hex'), network: kind.path, created: now, updated: now },
      ...fields
    };
    await world.store.change((state) => {
      state.updates.push(made);
    });
    return c.body(null, 201, { location: `${base}updates/${made.id}` });
  });

  return app;
}

function fieldsOf(given: Given): Omit<Update, 'id' | 'network' | 'created' | 'updated'> {
  const image = given.attachment.find((a) => a.type === 'Image');
  const clip = given.attachment.find((a) => a.type === 'Video');
  const link = given.attachment.find((a) => a.type === 'Link');
  return {
    ...{ type: given.type, context: given.context, title: given.name, text: given.content },
    tags: given.tag.map((t) => t.name),
    picture: image ? { url: image.url, alt: image.name } : null,
    clip: clip ? { url: clip.url, alt: clip.name } : null,
    inReplyTo: given.inReplyTo,
    button: link ? { label: link.name, url: link.href } : null,
    options: given.oneOf,
    why: given.summary,
    closes: given.endTime ? Date.parse(given.endTime) : null
  };
}
