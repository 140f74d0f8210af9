import { randomBytes } from 'node:crypto';
import { Hono } from 'hono';
import { html } from 'hono/html';
import { z } from 'zod';
import type { World } from '../context.ts';

/** A notice board that people write on by hand; it has no interface for programs. */
export function board(world: World): Hono {
  const app = new Hono();
  const base = `${world.origin}/board/`;
  const page = (title: string, body: ReturnType<typeof html>) =>
    html`<!doctype html>
      <html lang="en">
        <head>
          <meta charset="utf-8" />
          <meta name="viewport" content="width=device-width, initial-scale=1" />
          <title>${title}</title>
          <style>
            body {
              font: 17px/1.5 sans-serif;
              max-width: 36rem;
              margin: 0 auto;
              padding: 1rem;
              background: #e9dfc9;
              overflow-wrap: anywhere;
            }
            .notice {
              background: #fffdf5;
              padding: 1rem;
              margin: 1rem 0;
              white-space: pre-line;
            }
            textarea {
              width: 100%;
            }
          </style>
        </head>
        <body>
          <h1><a href="${base}">Board at the Mill Gate</a></h1>
          ${body}
        </body>
      </html>`;

  app.get('/', (c) =>
    c.html(
      page(
        'Board at the Mill Gate',
        html`<form method="post">
            <label>Your notice <textarea name="text" rows="5" required></textarea></label>
            <button>Pin it up</button>
          </form>
          ${world.store.state.notices
            .toReversed()
            .map((n) => html`<div class="notice">${n.text}</div>`)}`
      )
    )
  );
  app.post('/', async (c) => {
    const { text } = z.object({ text: z.string().min(1).max(4000) }).parse(await c.req.parseBody());
    const notice = { id: randomBytes(4).toString('hex'), text, at: world.now() };
    await world.store.change((state) => {
      state.notices.push(notice);
    });
    return c.redirect(`${base}${notice.id}`, 303);
  });
  app.get('/:id', (c) => {
    const notice = world.store.state.notices.find((n) => n.id === c.req.param('id'));
    return notice
      ? c.html(page('A notice', html`<div class="notice">${notice.text}</div>`))
      : c.html(page('No such notice', html`<p>It was taken down.</p>`), 404);
  });
  return app;
}
