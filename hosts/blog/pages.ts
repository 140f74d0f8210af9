import { html, raw } from 'hono/html';
import type { World } from '../context.ts';
import type { Post } from '../world/world.ts';
import { clean } from '../clean.ts';
import { commentsBody } from './comments.ts';

const STYLE = `body{font:18px/1.6 Georgia,"DejaVu Serif",serif;color:#23211d;background:#fffdf8;margin:0}
.page{max-width:42rem;margin:0 auto;padding:1rem 1.2rem 4rem}
.mast{border-bottom:3px double #8a7a5c;margin-bottom:2rem}.mast a{color:inherit;text-decoration:none}
h1{line-height:1.2;font-size:2rem}h2{margin-top:2rem;font-size:1.3rem}a{color:#6b3a1e}
iframe,img{max-width:100%;border:0}iframe{aspect-ratio:16/9;width:100%;height:auto}
figure{margin:1.5rem 0}.meta{color:#6a6458;font-size:.85rem}details{border-top:1px solid #d8cfba;padding-top:.6rem}
ul.posts{list-style:none;padding:0}ul.posts li{margin:0 0 1.6rem}`;

export const BLOG_NAME = 'The Wrenfold Notebook';

export const text = (post: Post, name: string): string => String(post.properties[name]?.[0] ?? '');

export const list = (post: Post, name: string): string[] =>
  (post.properties[name] ?? []).map(String).filter(Boolean);

export function contentHtml(post: Post): string {
  const content = post.properties.content?.[0];
  if (content && typeof content === 'object' && 'html' in content)
    return clean(String(content.html));
  return String(content ?? '')
    .split(/\n{2,}/)
    .map((p) => `<p>${p.replaceAll('&', '&amp;').replaceAll('<', '&lt;')}</p>`)
    .join('');
}

export function blogPage(world: World, title: string, body: unknown, lang = 'en') {
  const at = (path: string) => `${world.blogUrl}${path}`;
  return html`<!doctype html>
    <html lang="${lang}">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width" />
        <title>${title}</title>
        <link rel="stylesheet" href="${at('style.css')}" />
        <link
          rel="alternate"
          type="application/atom+xml"
          href="${at('feed.xml')}"
          title="${BLOG_NAME}"
        />
        <link rel="micropub" href="${at('micropub')}" />
        <link rel="token_endpoint" href="${at('token')}" />
      </head>
      <body>
        <div class="page">
          <header class="mast">
            <p><a href="${world.blogUrl}">${BLOG_NAME}</a></p>
          </header>
          ${body}
        </div>
      </body>
    </html>`;
}

export const stylesheet = STYLE;

export function postBody(world: World, post: Post) {
  const published = new Date(world.publishedAt(post));
  const photo = photoOf(post);
  const uid = text(post, 'uid');
  return html`<article class="h-entry">
    ${world.isPublic(post) ? '' : html`<p class="meta"><strong>${standingOf(world, post)}</strong></p>`}
    <h1 class="p-name">${text(post, 'name')}</h1>
    <p class="meta">
      <a class="u-url" href="${world.blogUrl}posts/${post.slug}"
        ><time class="dt-published" datetime="${published.toISOString()}"
          >${published.toISOString().slice(0, 10)}</time
        ></a
      >
      by <span class="p-author h-card">${text(post, 'author') || 'Isolde Wrenfold'}</span>
      ${list(post, 'category').map((c) => html` · <span class="p-category">${c}</span>`)}
    </p>
    ${photo.url && !showsVideo(post) ? html`<img class="u-photo" src="${photo.url}" alt="${photo.alt}" width="672" />` : ''}
    <div class="e-content">${raw(contentHtml(post))}</div>
    ${uid ? html`<data class="u-uid" value="${uid}"></data>` : ''}
    <p class="meta">
      ${text(post, 'mp-comments') === 'closed' ? 'Comments are closed.' : 'Comments are open.'}
    </p>
    ${commentsBody(post)}
  </article>`;
}

/** A post that shows a video has its poster in it; the same picture above it says nothing more. */
const showsVideo = (post: Post): boolean => /<(?:iframe|video)\b/.test(contentHtml(post));

function photoOf(post: Post): { url: string; alt: string } {
  const photo = post.properties.photo?.[0];
  if (photo && typeof photo === 'object' && 'value' in photo) {
    return { url: String(photo.value), alt: String('alt' in photo ? photo.alt : '') };
  }
  return { url: String(photo ?? ''), alt: '' };
}

function standingOf(world: World, post: Post): string {
  if (post.status === 'draft') return 'Draft, not published';
  if (post.visibility !== 'public') return `Published, ${post.visibility}`;
  return `Will be published ${new Date(world.publishedAt(post)).toUTCString()}`;
}

export function frontBody(world: World, posts: Post[]) {
  return html`<h1>${BLOG_NAME}</h1>
    <ul class="posts h-feed">
      ${posts.map(
        (post) =>
          html`<li class="h-entry">
            <a class="u-url p-name" href="${world.blogUrl}posts/${post.slug}"
              >${text(post, 'name')}</a
            >
            <br /><span class="meta"
              >${new Date(world.publishedAt(post)).toISOString().slice(0, 10)}</span
            >
            <br /><span class="p-summary">${text(post, 'summary')}</span>
          </li>`
      )}
    </ul>`;
}
