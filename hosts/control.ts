import { gzipSync } from 'node:zlib';
import { Hono } from 'hono';
import { html } from 'hono/html';
import { z } from 'zod';
import { blogLog, LOG_DAYS } from './audience/blogLog.ts';
import { figuresTable } from './audience/figuresTable.ts';
import type { World } from './context.ts';
import { NETWORKS } from './network/kinds.ts';
import type { Faults } from './state.ts';

const HOUR = 3_600_000;
const LABELS: Record<Exclude<keyof Faults, 'keyExpired' | 'overQuota'>, string> = {
  slow: 'Hold back each answer (milliseconds)',
  failOneIn: 'Fail one call in … before anything is done',
  loseOneIn: 'Do one write in …, and lose the answer',
  busyOneIn: 'Refuse one call in … with 429',
  retryAfter: 'Retry-After of a 429 (seconds)',
  cutUploads: 'Cut so many parts of uploads in the middle'
};

/** The panel behind the scenes: the clock, the faults, the titles, a fresh start. */
export function control(world: World): Hono {
  const app = new Hono();
  // A page of another origin could send a form here; programs name no origin.
  app.use(async (c, next) => {
    const origin = c.req.header('origin');
    const isForeign = origin !== undefined && origin !== new URL(c.req.url).origin;
    return isForeign ? c.text('Only the pages of this world may do that.', 403) : next();
  });

  app.get('/', (c) => {
    const { faults } = world.store.state;
    return c.html(
      html`<!doctype html>
        <html lang="en">
          <head>
            <meta charset="utf-8" />
            <title>Behind the scenes</title>
            <style>
              body {
                font: 16px/1.5 sans-serif;
                max-width: 44rem;
                margin: 2rem auto;
                padding: 0 1rem;
              }
              label {
                display: block;
                margin: 0.4rem 0;
              }
            </style>
          </head>
          <body>
            <h1>Behind the scenes</h1>
            <p>
              <a href="/channel/">Channel</a> · <a href="/blog/">Blog</a> ·
              ${NETWORKS.map(({ path, name }) => html`<a href="/${path}/">${name}</a> · `)}
              <a href="/mailbox/">Mailbox</a> · <a href="/board/">Notice board</a> · the clock
              stands at ${new Date(world.now()).toUTCString()}
            </p>
            <form method="post" action="/control/clock">
              <label
                >Move the clock on by
                <input name="hours" type="number" value="24" min="0" /> hours</label
              >
              <button>Move</button>
            </form>
            <h2>Faults</h2>
            <form method="post" action="/control/faults">
              ${Object.entries(LABELS).map(
                ([name, label]) =>
                  html`<label
                    >${label}
                    <input
                      name="${name}"
                      type="number"
                      min="0"
                      value="${faults[name as keyof typeof LABELS]}"
                  /></label>`
              )}
              <label
                ><input type="checkbox" name="keyExpired" ${faults.keyExpired ? 'checked' : ''} />
                The key has expired</label
              >
              <label
                ><input type="checkbox" name="overQuota" ${faults.overQuota ? 'checked' : ''} /> The
                allowance is used up</label
              >
              <button>Set</button>
            </form>
            <h2>Retitle an upload</h2>
            <form method="post" action="/control/title">
              <label
                >Upload
                <select name="id">
                  ${world.listed().map((v) => html`<option value="${v.id}">${v.title}</option>`)}
                </select></label
              >
              <label>New title <input name="title" required /></label>
              <button>Retitle</button>
            </form>
            <h2>Change an upload</h2>
            <form method="post" action="/control/upload">
              <label
                >Upload
                <select name="id">
                  ${world.listed().map((v) => html`<option value="${v.id}">${v.title}</option>`)}
                </select></label
              >
              <label>New description <textarea name="description"></textarea></label>
              <label>One more sentence at its end <input name="said" /></label>
              <label>In its captions, write instead of <input name="from" /></label>
              <label>this <input name="to" /></label>
              <label
                >Visibility
                <select name="visibility">
                  <option value="">as it is</option>
                  <option>public</option>
                  <option>unlisted</option>
                  <option>private</option>
                </select></label
              >
              <button>Change</button>
            </form>
            <h2>Delete a comment</h2>
            <form method="post" action="/control/comment">
              <label
                >Comment
                <select name="id">
                  ${world.store.state.comments.map(
                    (comment) =>
                      html`<option value="${comment.id}">${comment.author}, ${comment.id}</option>`
                  )}
                </select></label
              >
              <button>Delete</button>
            </form>
            <h2>What its owner can download</h2>
            <p>
              <a href="/control/access.log">Access log of the blog</a> ·
              <a href="/control/access.log.gz">the same, packed</a> ·
              <a href="/control/figures.csv">Views of the channel by day</a>
            </p>
            <h2>Begin again</h2>
            <form method="post" action="/control/reset"><button>Reset this world</button></form>
          </body>
        </html>`
    );
  });

  app.post('/clock', async (c) => {
    const { hours } = z
      .object({ hours: z.coerce.number().min(0).max(87_600) })
      .parse(await c.req.parseBody());
    await world.store.change((state) => {
      state.clockOffset += hours * HOUR;
    });
    return c.redirect('/control/', 303);
  });

  app.post('/faults', async (c) => {
    const form = await c.req.parseBody();
    const numbers = Object.fromEntries(
      Object.keys(LABELS).map((name) => [name, Number(form[name] ?? 0)])
    );
    await world.store.setFaults({
      ...numbers,
      keyExpired: 'keyExpired' in form,
      overQuota: 'overQuota' in form
    });
    return c.redirect('/control/', 303);
  });

  app.post('/title', async (c) => {
    const form = z
      .object({ id: z.string(), title: z.string().min(1).max(200) })
      .parse(await c.req.parseBody());
    const at = world.now();
    await world.store.change((state) => {
      state.titles[form.id] = { title: form.title, at };
    });
    return c.redirect('/control/', 303);
  });

  app.post('/upload', async (c) => {
    const form = z
      .object({
        id: z.string(),
        description: z.string().max(5000).default(''),
        said: z.string().max(300).default(''),
        from: z.string().max(100).default(''),
        to: z.string().max(100).default(''),
        visibility: z.enum(['', 'public', 'unlisted', 'private']).default('')
      })
      .parse(await c.req.parseBody());
    const at = world.now();
    await world.store.change((state) => {
      state.edits[form.id] = {
        ...state.edits[form.id],
        ...(form.description && { description: form.description }),
        ...(form.said && { said: form.said }),
        ...(form.from && { mended: { from: form.from, to: form.to } }),
        ...(form.visibility && { visibility: form.visibility }),
        at
      };
    });
    return c.redirect('/control/', 303);
  });

  app.post('/comment', async (c) => {
    const { id } = z.object({ id: z.string() }).parse(await c.req.parseBody());
    await world.store.change((state) => {
      state.comments = state.comments.filter((comment) => comment.id !== id);
    });
    return c.redirect('/control/', 303);
  });

  const DAY = 24 * HOUR;
  const log = () => blogLog(world, world.now() - LOG_DAYS * DAY, world.now());
  const asFile = (name: string, type: string) => ({
    'Content-Type': type,
    'Content-Disposition': `attachment; filename="${name}"`
  });
  app.get('/access.log', (c) =>
    c.body(`${log().lines.join('\n')}\n`, 200, asFile('access.log', 'text/plain'))
  );
  app.get('/access.log.gz', (c) =>
    c.body(
      new Uint8Array(gzipSync(`${log().lines.join('\n')}\n`)),
      200,
      asFile('access.log.gz', 'application/gzip')
    )
  );
  app.get('/figures.csv', (c) =>
    c.body(figuresTable(world, LOG_DAYS), 200, asFile('figures.csv', 'text/csv; charset=utf-8'))
  );
  // What a test holds against what was found.
  app.get('/audience.json', (c) => c.json(log().truth));

  app.post('/reset', async (c) => {
    await world.store.reset();
    return c.redirect('/control/', 303);
  });

  return app;
}
