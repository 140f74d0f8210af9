import { Hono, type Context } from 'hono';
import { z } from 'zod';
import type { World } from '../context.ts';
import { monthAllowance } from '../allowance.ts';
import { scopesOf, tokenFacts } from '../keys.ts';
import { readWebVtt } from './readWebVtt.ts';
import { visibilityOf, workOf, type Upload } from './upload.ts';

/** The keys this channel knows, and what each may do. They are public: this is a rehearsal. */
export const CHANNEL_KEYS: Readonly<Record<string, string[]>> = {
  'wrenfold-loomworks-key': ['create', 'update', 'delete', 'media']
};

const LIMITS = { title: 100, description: 5000, tags: 500 };
/** Videos that are taken in a month. */
const A_MONTH = 30;
const CATEGORIES = ['Crafts', 'Education', 'Film', 'How to', 'Music', 'Travel'];

const propertiesSchema = z.record(z.string(), z.array(z.unknown()));
type Properties = z.infer<typeof propertiesSchema>;
const createSchema = z.object({ type: z.array(z.string()).min(1), properties: propertiesSchema });
const actionSchema = z.discriminatedUnion('action', [
  z.object({ action: z.literal('update'), url: z.string(), replace: propertiesSchema }),
  z.object({ action: z.literal('delete'), url: z.string() })
]);

/**
 * What stands at the channel, by Micropub (W3C Recommendation of 23 May 2017). The file of a video
 * follows by tus, at the address that the configuration tells.
 */
export function channelMicropub(world: World): Hono {
  const app = new Hono();
  const refuse = (c: Context, status: 400 | 401 | 403 | 404, error: string, description: string) =>
    c.json({ error, error_description: description }, status);
  const noKey = (c: Context) =>
    refuse(c, 401, 'unauthorized', 'The key is missing, unknown or has expired.');
  const urlOf = (upload: Upload) => `${world.channelUrl}watch/${upload.id}`;
  const all = () => world.store.state.uploads.filter((u) => !u.deleted);
  const allowance = () =>
    monthAllowance(
      world.store.state.uploads.map((u) => u.created),
      A_MONTH,
      world.now()
    );
  const find = (url: string) => all().find((u) => urlOf(u) === url.replace(/[?#].*/s, ''));

  app.get('/token', (c) => {
    const scopes = scopesOf(c, world, CHANNEL_KEYS);
    return scopes ? c.json({ me: world.channelUrl, ...tokenFacts(world, scopes) }) : noKey(c);
  });

  app.get('/micropub', (c) => {
    if (!scopesOf(c, world, CHANNEL_KEYS)) return noKey(c);
    switch (c.req.query('q')) {
      case 'config':
        return c.json({
          'upload-endpoint': `${world.channelUrl}uploads`,
          'upload-protocol': 'tus 1.0',
          limits: LIMITS,
          allowance: allowance(),
          'post-types': [{ type: 'video', name: 'Video' }],
          q: ['config', 'source', 'category']
        });
      case 'category':
        return c.json({ categories: CATEGORIES });
      case 'source':
        return source(c);
      default:
        return refuse(c, 400, 'invalid_request', 'This query is not known here.');
    }
  });

  const shown = (upload: Upload): Properties => {
    const now = world.now();
    const work = workOf(upload, now);
    return {
      uid: [upload.uid],
      url: [urlOf(upload)],
      name: [upload.title],
      content: [upload.description],
      category: upload.tags,
      visibility: [visibilityOf(upload, now)],
      published: [new Date(upload.publishAt ?? upload.created).toISOString()],
      updated: [new Date(upload.updated).toISOString()],
      language: [upload.language],
      'repost-of': [],
      'based-on': upload.source ? [upload.source] : [],
      duration: upload.file ? [upload.file.duration] : [],
      state: [work.state],
      progress: [work.done],
      trouble: upload.trouble ? [upload.trouble] : [],
      embed: [`${world.channelUrl}embed/${upload.id}`],
      video: upload.file ? [`${world.channelUrl}videos/${upload.id}/clip.webm`] : [],
      photo: [`${world.channelUrl}thumbnails/${upload.id}/1280.png`]
    };
  };

  function source(c: Context) {
    const url = c.req.query('url');
    if (url) {
      const upload = find(url);
      return upload
        ? c.json({ type: ['h-entry'], properties: shown(upload) })
        : refuse(c, 404, 'not_found', 'There is no video at this address.');
    }
    const limit = Math.min(100, Number(c.req.query('limit')) || 20);
    const after = Number(c.req.query('after')) || 0;
    const uploads = all().toSorted((a, b) => b.created - a.created);
    return c.json({
      items: uploads
        .slice(after, after + limit)
        .map((u) => ({ type: ['h-entry'], properties: shown(u) })),
      ...(after + limit < uploads.length && { paging: { after: String(after + limit) } })
    });
  }

  app.post('/micropub', async (c) => {
    const scopes = scopesOf(c, world, CHANNEL_KEYS);
    if (!scopes) return noKey(c);
    const body: unknown = await c.req.json().catch(() => null);
    if (body && typeof body === 'object' && 'action' in body) return act(c, scopes, body);
    const created = createSchema.safeParse(body);
    if (!created.success)
      return refuse(c, 400, 'invalid_request', 'This is not a Micropub request.');
    if (!scopes.includes('create')) return refuse(c, 403, 'insufficient_scope', 'May not create.');
    if (world.store.state.faults.overQuota || allowance().left === 0)
      return refuse(c, 403, 'quota_exceeded', 'The allowance of videos for this month is used up.');
    const given = read(created.data.properties);
    const tooLong = overLimit(given);
    if (tooLong) return refuse(c, 400, 'invalid_request', tooLong);
    const now = world.now();
    const made = await world.store.change((state) => {
      const upload: Upload = {
        uid: '',
        source: '',
        title: '',
        description: '',
        tags: [],
        category: '',
        language: 'en',
        visibility: 'private',
        publishAt: null,
        captions: [],
        chapters: [],
        ...given,
        id: freeId(given.title ?? '', state.uploads),
        created: now,
        updated: now,
        file: null,
        received: null,
        trouble: '',
        thumbnail: '',
        deleted: false
      };
      state.uploads.push(upload);
      return upload;
    });
    return c.body(null, 201, { Location: urlOf(made) });
  });

  /** What was there from the beginning can be given another date as long as it is still to come. */
  async function moveDate({ url, replace }: { url: string; replace: Properties }) {
    const at = Date.parse(String(replace['publish-at']?.[0] ?? ''));
    const id = decodeURIComponent(url.split('/').at(-1) ?? '');
    const video = world.listed().find((one) => one.id === id);
    if (!video || Number.isNaN(at) || world.isOut(video)) return false;
    await world.store.change((state) => {
      state.edits[id] = { ...state.edits[id], published: at, at: world.now() };
    });
    return true;
  }

  async function act(c: Context, scopes: string[], body: object) {
    const parsed = actionSchema.safeParse(body);
    if (!parsed.success) return refuse(c, 400, 'invalid_request', 'The action is not complete.');
    const action = parsed.data;
    if (!scopes.includes(action.action))
      return refuse(c, 403, 'insufficient_scope', `The key may not ${action.action}.`);
    const found = find(action.url);
    const isMoved = action.action === 'update' && !found && (await moveDate(action));
    if (isMoved) return c.body(null, 204);
    if (!found) return refuse(c, 404, 'not_found', 'There is no video at this address.');
    const given = action.action === 'update' ? read(action.replace) : {};
    const tooLong = overLimit(given);
    if (tooLong) return refuse(c, 400, 'invalid_request', tooLong);
    const now = world.now();
    await world.store.change((state) => {
      const upload = state.uploads.find((u) => u.id === found.id);
      if (!upload) return;
      if (action.action === 'delete') upload.deleted = true;
      else Object.assign(upload, given, { updated: now });
    });
    return c.body(null, 204);
  }

  return app;
}

/** What the properties say, as the channel keeps it. */
function read(properties: Properties): Partial<Upload> {
  const given: Partial<Upload> = {};
  const first = (name: string) =>
    properties[name] === undefined ? undefined : String(properties[name][0] ?? '');
  const take = (name: string, into: 'uid' | 'title' | 'description' | 'source' | 'language') => {
    const value = first(name);
    if (value !== undefined) given[into] = value;
  };
  take('uid', 'uid');
  take('name', 'title');
  take('content', 'description');
  take('based-on', 'source');
  take('language', 'language');
  if (properties.category) given.tags = properties.category.map(String);
  if (properties.section) given.category = first('section') ?? '';
  const visibility = z.enum(['public', 'unlisted', 'private']).safeParse(first('visibility'));
  if (visibility.success) given.visibility = visibility.data;
  if (properties['publish-at']) {
    const time = Date.parse(first('publish-at') ?? '');
    given.publishAt = Number.isNaN(time) ? null : time;
  }
  if (properties.captions) given.captions = readWebVtt(first('captions') ?? '');
  if (properties.chapters)
    given.chapters = readWebVtt(first('chapters') ?? '').map(({ start, end, text }) => ({
      start,
      end,
      title: text
    }));
  return given;
}

function overLimit({ title, description, tags }: Partial<Upload>): string {
  const length = (text: string) => [...text].length;
  if (title !== undefined && (length(title) > LIMITS.title || length(title) === 0))
    return `The title needs 1 to ${LIMITS.title} characters.`;
  if (description !== undefined && length(description) > LIMITS.description)
    return `The description has over ${LIMITS.description} characters.`;
  if (tags !== undefined && length(tags.join(', ')) > LIMITS.tags)
    return `The tags have over ${LIMITS.tags} characters, counted with commas and spaces.`;
  return '';
}

function freeId(title: string, taken: readonly Upload[]): string {
  const slug =
    title
      .normalize('NFKD')
      .replace(/[\u0300-\u036f]/g, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 50) || 'video';
  for (let n = 1; ; n++) {
    // Never the name of an upload that the world began with.
    const id = `made-${slug}${n > 1 ? `-${n}` : ''}`;
    if (!taken.some((u) => u.id === id)) return id;
  }
}
