import { randomBytes } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { Hono, type Context } from 'hono';
import type { World } from '../context.ts';
import { scopesOf } from '../keys.ts';
import { activitySchema, fieldsOf, overLimit } from './activity.ts';
import { UPDATE_KEYS, type NetworkKind } from './kinds.ts';
import { asObject, type Update } from './update.ts';

export const ACTIVITY = 'application/activity+json; charset=utf-8';
const DAY = 86_400_000;
const PAGE = 20;

/** The updates of a network, newest first. */
export const updatesOf = (world: World, kind: NetworkKind): Update[] =>
  world.store.state.updates
    .filter((u) => u.network === kind.path)
    .toSorted((a, b) => b.created - a.created);

/** How many were made within a day. */
export const madeToday = (world: World, kind: NetworkKind): number =>
  updatesOf(world, kind).filter((u) => u.created > world.now() - DAY).length;

const refuse = (
  c: Context,
  status: 400 | 401 | 403 | 404,
  error: string,
  description: string
): Response => c.json({ error, error_description: description }, status);
export const noKey = (c: Context): Response =>
  refuse(c, 401, 'unauthorized', 'The key is missing, unknown or has expired.');

/** The outbox that activities are posted to, and the objects that stand in it. */
export function networkOutbox(world: World, kind: NetworkKind, base: string): Hono {
  const app = new Hono();
  const own = () => updatesOf(world, kind);
  const find = (address: string) =>
    own().find((u) => address === `${base}objects/${u.id}` || address === `${base}updates/${u.id}`);

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
      id: `${base}outbox?from=${from}`,
      type: 'OrderedCollectionPage',
      totalItems: updates.length,
      orderedItems: updates
        .slice(from, from + PAGE)
        .map((u) => ({ type: 'Create', object: asObject(u, base, world.now()) })),
      ...(from + PAGE < updates.length && { next: `${base}outbox?from=${from + PAGE}` })
    });
  });

  app.post('/outbox', async (c) => {
    const scopes = scopesOf(c, world, UPDATE_KEYS);
    if (!scopes) return noKey(c);
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
        // Answers to other options than those that are there now say nothing.
        const isAnswerable = isDeepStrictEqual(kept?.options, fields.options);
        if (kept)
          Object.assign(kept, fields, { updated: now }, !isAnswerable && { countedFrom: now });
      });
      return c.body(null, 200, { location: `${base}updates/${update.id}` });
    }
    if (world.store.state.faults.overQuota || madeToday(world, kind) >= kind.limits.aDay)
      return refuse(
        c,
        403,
        'quota_exceeded',
        `Today's allowance of ${kind.limits.aDay} is used up.`
      );
    const made: Update = {
      id: randomBytes(6).toString('hex'),
      network: kind.path,
      created: now,
      updated: now,
      ...fields
    };
    await world.store.change((state) => {
      state.updates.push(made);
    });
    return c.body(null, 201, { location: `${base}updates/${made.id}` });
  });

  return app;
}
