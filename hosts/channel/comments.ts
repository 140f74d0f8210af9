import { randomBytes } from 'node:crypto';
import { Hono } from 'hono';
import { html, raw } from 'hono/html';
import { z } from 'zod';
import { clean } from '../clean.ts';
import { commentFeed } from '../comments/feed.ts';
import type { World } from '../context.ts';
import type { Video } from '../world/world.ts';
import { ATOM } from './names.ts';

export const videoTag = (id: string): string => `tag:wrenfold.example,2026:video/${id}`;
const commentTag = (id: string): string => `tag:wrenfold.example,2026:comment/${id}`;
export const commentsUrl = (world: World, id: string): string =>
  `${world.channelUrl}watch/${id}/comments.xml`;

/** What people write under uploads, as a form and as a feed. */
export function channelComments(world: World): Hono {
  const app = new Hono();

  app.get('/watch/:id/comments.xml', (c) => {
    const video = world.reachable(c.req.param('id'));
    if (!video) return c.notFound();
    const page = `${world.channelUrl}watch/${video.id}`;
    const comments = world.comments(video.id).map((comment) => ({
      ...comment,
      id: commentTag(comment.id),
      url: `${page}#comment-${comment.id}`,
      answers: comment.answers
        ? { id: commentTag(comment.answers), url: `${page}#comment-${comment.answers}` }
        : { id: videoTag(video.id), url: page }
    }));
    const self = commentsUrl(world, video.id);
    return c.body(commentFeed({ self, title: `Comments on ${video.title}` }, comments), 200, ATOM);
  });

  app.post('/watch/:id/comments', async (c) => {
    const video = world.reachable(c.req.param('id'));
    if (!video) return c.notFound();
    const form = z
      .object({ author: z.string().min(1).max(80), text: z.string().min(1).max(4000) })
      .parse(await c.req.parseBody());
    await world.store.change((state) => {
      state.comments.push({
        id: randomBytes(4).toString('hex'),
        video: video.id,
        author: form.author,
        site: '',
        html: `<p>${form.text.replaceAll('&', '&amp;').replaceAll('<', '&lt;')}</p>`,
        at: world.now(),
        answers: ''
      });
    });
    return c.redirect(`${world.channelUrl}watch/${video.id}`, 303);
  });

  return app;
}

export function commentsBody(world: World, video: Video) {
  return html`<h2 id="comments">Comments</h2>
    ${world.comments(video.id).map(
      (comment) =>
        html`<article id="comment-${comment.id}">
          <p>
            <strong>${comment.author}</strong>
            <small>${new Date(comment.at).toISOString().slice(0, 10)}</small>
          </p>
          ${raw(clean(comment.html))}
        </article>`
    )}
    <form method="post" action="${world.channelUrl}watch/${video.id}/comments">
      <p>
        <label>Your name <input name="author" required /></label>
      </p>
      <p>
        <label>Your comment <br /><textarea name="text" rows="3" required></textarea></label>
      </p>
      <button>Send</button>
    </form>`;
}
