import { randomBytes } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Hono, type Context } from 'hono';
import { z } from 'zod';
import type { World } from '../context.ts';
import { monthAllowance } from '../allowance.ts';
import { scopesOf as keyScopes, tokenFacts } from '../keys.ts';
import type { Post } from '../world/world.ts';
import { fromForm, slugOf } from './form.ts';
import { BLOG_NAME } from './pages.ts';
import { changePost, type Properties } from './properties.ts';

/** The keys this blog knows, and what each may do. They are public: this is a rehearsal. */
const KEYS: Record<string, string[]> = {
  'wrenfold-notebook-key': ['create', 'update', 'delete', 'undelete', 'media'],
  'wrenfold-drafts-only-key': ['draft']
};

/** Posts that are taken in a month. */
const A_MONTH = 200;

const propertiesSchema = z.record(z.string(), z.array(z.unknown()));
const createSchema = z.object({ type: z.array(z.string()).min(1), properties: propertiesSchema });
const actionSchema = z.discriminatedUnion('action', [
  z.object({
    action: z.literal('update'),
    url: z.string(),
    replace: propertiesSchema.optional(),
    add: propertiesSchema.optional(),
    delete: z.union([z.array(z.string()), propertiesSchema]).optional()
  }),
  z.object({ action: z.literal('delete'), url: z.string() }),
  z.object({ action: z.literal('undelete'), url: z.string() })
]);

/** Micropub (W3C Recommendation of 23 May 2017), with its media endpoint and list queries. */
export function micropub(world: World): Hono {
  const app = new Hono();
  const endpoint = `${world.blogUrl}micropub`;

  const scopesOf = (c: Context): string[] | null => keyScopes(c, world, KEYS);
  const refuse = (c: Context, status: 400 | 401 | 403 | 404, error: string, description: string) =>
    c.json({ error, error_description: description }, status);
  const noKey = (c: Context) =>
    refuse(c, 401, 'unauthorized', 'The key is missing, unknown or has expired.');
  const lacks = (c: Context, scope: string) =>
    c.json(
      {
        error: 'insufficient_scope',
        error_description: `The key lacks the right "${scope}".`,
        scope
      },
      403
    );
  const allowance = () =>
    monthAllowance(
      world.posts().map((p) => p.created),
      A_MONTH,
      world.now()
    );
  const find = (url: string): Post | undefined => {
    if (!URL.canParse(url, world.blogUrl)) return undefined;
    const { pathname } = new URL(url, world.blogUrl);
    return world.posts().find((p) => `/blog/posts/${p.slug}` === pathname);
  };

  app.get('/token', (c) => {
    const scopes = scopesOf(c);
    if (!scopes) return noKey(c);
    return c.json({ me: world.blogUrl, client_id: endpoint, ...tokenFacts(world, scopes) });
  });

  app.get('/micropub', (c) => {
    if (!scopesOf(c)) return noKey(c);
    switch (c.req.query('q')) {
      case 'config':
        return c.json({
          'media-endpoint': `${world.blogUrl}media`,
          'syndicate-to': [],
          allowance: allowance(),
          'post-types': [{ type: 'article', name: 'Article' }],
          q: ['config', 'source', 'category', 'syndicate-to'],
          destination: [{ uid: world.blogUrl, name: BLOG_NAME }]
        });
      case 'syndicate-to':
        return c.json({ 'syndicate-to': [] });
      case 'category':
        return c.json({
          categories: [
            ...new Set(world.posts().flatMap((p) => (p.properties.category ?? []).map(String)))
          ].sort()
        });
      case 'source':
        return source(c);
      default:
        return refuse(c, 400, 'invalid_request', 'This query is not known here.');
    }
  });

  function source(c: Context) {
    const wanted = c.req.queries('properties[]') ?? c.req.queries('properties') ?? [];
    const shown = (post: Post) => {
      const all: Properties = {
        ...post.properties,
        url: [world.postUrl(post)],
        'post-status': [post.status],
        visibility: [post.visibility],
        published: [new Date(world.publishedAt(post)).toISOString()],
        updated: [new Date(post.updated).toISOString()]
      };
      return wanted.length
        ? Object.fromEntries(Object.entries(all).filter(([name]) => wanted.includes(name)))
        : all;
    };
    const url = c.req.query('url');
    if (url) {
      const post = find(url);
      return post && !post.deleted
        ? c.json({ type: ['h-entry'], properties: shown(post) })
        : refuse(c, 400, 'invalid_request', 'There is no post at this address.');
    }
    const limit = Math.min(100, Number(c.req.query('limit')) || 20);
    const after = Number(c.req.query('after')) || 0;
    const posts = world
      .posts()
      .filter((p) => !p.deleted)
      .toSorted((a, b) => b.created - a.created);
    return c.json({
      items: posts
        .slice(after, after + limit)
        .map((p) => ({ type: ['h-entry'], properties: shown(p) })),
      ...(after + limit < posts.length && { paging: { after: String(after + limit) } })
    });
  }

  app.post('/micropub', async (c) => {
    const scopes = scopesOf(c);
    if (!scopes) return noKey(c);
    const isJson = (c.req.header('content-type') ?? '').includes('json');
    const body: unknown = isJson
      ? await c.req.json().catch(() => null)
      : fromForm(await c.req.parseBody({ all: true }));
    if (body && typeof body === 'object' && 'action' in body) return act(c, scopes, body);
    const created = createSchema.safeParse(body);
    if (!created.success)
      return refuse(c, 400, 'invalid_request', 'This is not a Micropub request.');
    return create(c, scopes, created.data.properties);
  });

  async function create(c: Context, scopes: string[], given: Properties) {
    const draftOnly = !scopes.includes('create');
    if (draftOnly && !scopes.includes('draft')) return lacks(c, 'create');
    if (world.store.state.faults.overQuota || allowance().left === 0) {
      return refuse(c, 403, 'quota_exceeded', 'The allowance of posts for this month is used up.');
    }
    const properties = { ...given };
    const take = (name: string): string => {
      const value = String(properties[name]?.[0] ?? '');
      delete properties[name];
      return value;
    };
    const status = draftOnly || take('post-status') === 'draft' ? 'draft' : 'published';
    const visibility = z
      .enum(['public', 'unlisted', 'private'])
      .catch('public')
      .parse(take('visibility'));
    const wanted = slugOf(take('mp-slug') || String(properties.name?.[0] ?? '') || 'note');
    const now = world.now();
    const post = await world.store.change((state) => {
      let slug = wanted;
      for (let n = 2; state.posts.some((p) => p.slug === slug); n++) slug = `${wanted}-${n}`;
      const made: Post = {
        slug,
        secret: randomBytes(9).toString('base64url'),
        status,
        visibility,
        deleted: false,
        created: now,
        updated: now,
        properties: { published: [new Date(now).toISOString()], ...properties }
      };
      state.posts.push(made);
      return made;
    });
    return c.body(null, 201, { Location: world.postUrl(post) });
  }

  async function act(c: Context, scopes: string[], body: object) {
    const parsed = actionSchema.safeParse(body);
    if (!parsed.success) return refuse(c, 400, 'invalid_request', 'The action is not complete.');
    const action = parsed.data;
    if (!scopes.includes(action.action)) return lacks(c, action.action);
    const found = find(action.url);
    if (!found || (found.deleted && action.action === 'update')) {
      return refuse(c, 404, 'not_found', 'There is no post at this address.');
    }
    const now = world.now();
    const before = world.postUrl(found);
    await world.store.change((state) => {
      const post = state.posts.find((p) => p.slug === found.slug);
      if (!post) return;
      post.updated = now;
      if (action.action === 'update') changePost(post, action);
      else post.deleted = action.action === 'delete';
    });
    const after = find(action.url);
    const url = after ? world.postUrl(after) : before;
    return action.action === 'update' && url !== before
      ? c.body(null, 201, { Location: url })
      : c.body(null, 204);
  }

  app.post('/media', async (c) => {
    const scopes = scopesOf(c);
    if (!scopes) return noKey(c);
    if (!scopes.includes('media') && !scopes.includes('create')) return lacks(c, 'media');
    const file = (await c.req.parseBody()).file;
    if (!(file instanceof File)) return refuse(c, 400, 'invalid_request', 'No file was sent.');
    if (!/^(image|video|audio)\//.test(file.type)) {
      return refuse(c, 400, 'invalid_request', 'Only pictures, sound and video are taken.');
    }
    const name = `${randomBytes(9).toString('base64url')}.${file.type.split('/')[1]?.replace(/\W.*/, '')}`;
    await writeFile(join(world.store.folder, 'media', name), Buffer.from(await file.arrayBuffer()));
    await world.store.change((state) => state.media.push({ name, type: file.type }));
    return c.body(null, 201, { Location: `${world.blogUrl}media/${name}` });
  });

  return app;
}
