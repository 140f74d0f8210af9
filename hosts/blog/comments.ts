import { html, raw } from 'hono/html';
import { z } from 'zod';
import { commentFeed } from '../comments/feed.ts';
import type { World } from '../context.ts';
import type { Post } from '../world/world.ts';
import { clean } from '../clean.ts';

const one = z.array(z.string()).transform((values) => values[0] ?? '');
const personSchema = z.object({
  properties: z.object({ name: one.default(''), url: one.default('') })
});
const contentSchema = z.union([
  z.object({ html: z.string() }),
  z.string().transform((html) => ({ html }))
]);

/** A comment of a post: a citation (h-cite) of what was written elsewhere. */
const citeSchema = z.object({
  type: z.array(z.string()),
  properties: z.object({
    uid: one.default(''),
    url: one.default(''),
    author: z.array(z.union([personSchema, z.string()])).default([]),
    content: z.array(contentSchema).default([]),
    published: one.default(''),
    publication: one.default(''),
    'in-reply-to': one.default('')
  })
});

export function citedComments(post: Post) {
  return (post.properties.comment ?? []).flatMap((value) => {
    const { data } = citeSchema.safeParse(value);
    if (!data) return [];
    const { author, content, ...rest } = data.properties;
    const [by] = author;
    const name = typeof by === 'string' ? by : (by?.properties.name ?? '');
    const site = typeof by === 'string' ? '' : (by?.properties.url ?? '');
    return [{ ...rest, author: name, site, html: clean(content[0]?.html ?? '') }];
  });
}

export const commentsUrl = (world: World, post: Post): string =>
  `${world.blogUrl}posts/${post.slug}/comments.xml`;

export function postComments(world: World, post: Post): string {
  const page = `${world.blogUrl}posts/${post.slug}`;
  return commentFeed(
    { self: commentsUrl(world, post), title: 'Comments' },
    citedComments(post).map((comment) => ({
      id: comment.uid || comment.url,
      url: comment.url || page,
      author: comment.author,
      site: comment.site,
      html: comment.html,
      at: Date.parse(comment.published) || post.updated,
      answers: { id: page, url: page }
    }))
  );
}

export function commentsBody(post: Post) {
  const comments = citedComments(post);
  if (comments.length === 0) return '';
  return html`<section id="comments">
    <h2>Comments</h2>
    ${comments.map(
      (comment) =>
        html`<article class="u-comment h-cite">
          <p class="meta">
            <span class="p-author">${comment.author}</span>
            ${comment.publication ? html`at <span class="p-publication">${comment.publication}</span>` : ''},
            <a class="u-url" href="${comment.url}"
              ><time class="dt-published" datetime="${comment.published}"
                >${comment.published.slice(0, 10)}</time
              ></a
            >
          </p>
          <div class="e-content">${raw(comment.html)}</div>
        </article>`
    )}
  </section>`;
}
