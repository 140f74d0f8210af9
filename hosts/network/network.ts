import { Hono } from 'hono';
import type { World } from '../context.ts';
import { scopesOf, tokenFacts } from '../keys.ts';
import { UPDATE_KEYS, type NetworkKind } from './kinds.ts';
import { networkMedia } from './media.ts';
import { ACTIVITY, madeToday, networkOutbox, noKey, updatesOf } from './outbox.ts';
import { missingPage, streamPage, updatePage } from './pages.ts';
import { usesOf } from './update.ts';

/**
 * A network that speaks ActivityStreams 2.0 in the manner of ActivityPub's client protocol: activities
 * are posted to the outbox; what it takes is told in a document beside its actor.
 */
export function network(world: World, kind: NetworkKind): Hono {
  const app = new Hono();
  const base = `${world.origin}/${kind.path}/`;
  const own = () => updatesOf(world, kind);

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
        id: `${base}actor`,
        type: 'Organization',
        name: kind.name,
        summary: kind.about,
        url: base,
        outbox: `${base}outbox`,
        inbox: `${base}inbox`,
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
      allowance: { most: aDay, per: 'day', left: Math.max(0, aDay - madeToday(world, kind)) }
    });
  });
  app.get('/token', (c) => {
    const scopes = scopesOf(c, world, UPDATE_KEYS);
    return scopes ? c.json(tokenFacts(world, scopes)) : noKey(c);
  });
  app.get('/tags.json', (c) => {
    const names = (c.req.query('names') ?? '').split(',').filter(Boolean).slice(0, 60);
    return c.json(Object.fromEntries(names.map((name) => [name, usesOf(kind.path, name)])));
  });
  app.route('/media', networkMedia(world, kind, base));
  app.route('/', networkOutbox(world, kind, base));

  return app;
}
