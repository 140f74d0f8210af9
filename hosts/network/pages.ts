import { html, raw } from 'hono/html';
import type { HtmlEscapedString } from 'hono/utils/html';
import type { NetworkKind } from './kinds.ts';
import { votesOf, type Update } from './update.ts';

type Html = HtmlEscapedString | Promise<HtmlEscapedString>;

/** Each network looks otherwise, and none like the others. */
const LOOKS: Readonly<Record<string, string>> = {
  followers:
    'body{background:#fbf7ef;color:#2b2118}article{border-left:6px solid #a8452c;padding-left:1rem}',
  notes:
    'body{background:#f2f5ee;color:#1f2a1c;font-family:monospace}article{border-bottom:1px dashed #72806b}',
  pictures:
    'body{background:#26222b;color:#efe9f4}main{display:grid;grid-template-columns:repeat(auto-fill,minmax(15rem,1fr));gap:1rem;max-width:70rem}article img{aspect-ratio:1;object-fit:cover}',
  pages:
    'body{background:#eef2f5;color:#17242e;font-family:Georgia,serif}article{background:#fff;padding:1rem;border:2px solid #b9c6d0}'
};

function page(kind: NetworkKind, base: string, title: string, body: Html): Html {
  return html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>${title}</title>
        <link rel="alternate" type="application/activity+json" href="${base}actor" />
        <style>
          body {
            font: 16px/1.5 sans-serif;
            margin: 0 auto;
            padding: 1rem;
          }
          header,
          main {
            max-width: 40rem;
            margin: 0 auto;
          }
          article {
            margin: 1.5rem 0;
            padding-bottom: 1rem;
            overflow-wrap: anywhere;
          }
          article img,
          article video {
            max-width: 100%;
            width: 100%;
          }
          .text {
            white-space: pre-line;
          }
          a {
            color: inherit;
          }
          ${raw(LOOKS[kind.path] ?? '')}
        </style>
      </head>
      <body>
        <header>
          <h1><a href="${base}">${kind.name}</a></h1>
          <p>${kind.about}</p>
        </header>
        <main>${body}</main>
      </body>
    </html>`;
}

const LINK = /(https?:\/\/[^\s<]*[^\s<.,;:!?)])/g;

/** Text with its addresses as links; everything else is text. */
const linked = (text: string): Html[] =>
  text
    .split(LINK)
    .map((part, i) => (i % 2 === 1 ? html`<a href="${part}">${part}</a>` : html`${part}`));

function poll(update: Update, now: number): Html {
  const votes = votesOf(update, now);
  const all = votes.reduce((sum, n) => sum + n, 0);
  const isClosed = update.closes !== null && update.closes <= now;
  return html`<ul>
      ${update.options.map(
        ({ name, isRight }, i) =>
          html`<li>
            ${name}: ${votes[i]} of ${all}${isClosed && isRight ? ' (this is right)' : ''}
            <meter min="0" max="${Math.max(1, all)}" value="${votes[i]}"></meter>
          </li>`
      )}
    </ul>
    <p>
      ${
        isClosed
          ? html`Closed. ${update.why}`
          : update.closes
            ? `Open until ${new Date(update.closes).toUTCString()}`
            : 'Open'
      }
    </p>`;
}

function article(
  update: Update,
  base: string,
  now: number,
  most: number,
  after: Html[] = []
): Html {
  const isCut = [...update.text].length > most;
  const text = isCut ? `${[...update.text].slice(0, most).join('')}…` : update.text;
  return html`<article id="${update.id}">
    ${update.picture ? html`<img src="${update.picture.url}" alt="${update.picture.alt}" />` : ''}
    ${
      update.clip
        ? html`<video src="${update.clip.url}" aria-label="${update.clip.alt}" controls></video>`
        : ''
    }
    ${update.title ? html`<h2>${update.title}</h2>` : ''}
    <p class="text">${linked(text)}</p>
    ${isCut ? html`<p><a href="${base}updates/${update.id}">The whole of it</a></p>` : ''}
    ${update.tags.length > 0 ? html`<p>${update.tags.join(' ')}</p>` : ''}
    ${update.type === 'Question' ? poll(update, now) : ''} ${after}
    ${update.button ? html`<p><a href="${update.button.url}">${update.button.label}</a></p>` : ''}
    <p>
      <a href="${base}updates/${update.id}"
        ><time datetime="${new Date(update.created).toISOString()}"
          >${new Date(update.created).toUTCString()}</time
        ></a
      >
    </p>
  </article>`;
}

/** The updates that go on from one, in their order. */
function followers(update: Update, base: string, all: readonly Update[]): Update[] {
  const next = all.find(
    (u) =>
      u.inReplyTo &&
      [`${base}updates/${update.id}`, `${base}objects/${update.id}`].includes(u.inReplyTo)
  );
  return next ? [next, ...followers(next, base, all)] : [];
}

function moreOf(update: Update, base: string, all: readonly Update[]): Html[] {
  const { length } = followers(update, base, all);
  return length > 0
    ? [html`<p><a href="${base}updates/${update.id}">It goes on in ${length} more</a></p>`]
    : [];
}

export const streamPage = (
  kind: NetworkKind,
  base: string,
  updates: readonly Update[],
  now: number
): Html =>
  page(
    kind,
    base,
    kind.name,
    updates.length > 0
      ? html`${updates
          .filter((u) => !u.inReplyTo)
          .map((u) => article(u, base, now, kind.limits.shownInStream, moreOf(u, base, updates)))}`
      : html`<p>Nothing has been told here yet.</p>`
  );

export const updatePage = (
  kind: NetworkKind,
  base: string,
  update: Update,
  all: readonly Update[],
  now: number
): Html =>
  page(
    kind,
    base,
    `${update.title || update.text.split('\n')[0]} · ${kind.name}`,
    html`${[update, ...followers(update, base, all)].map((u) => article(u, base, now, Infinity))}`
  );

export const missingPage = (kind: NetworkKind, base: string): Html =>
  page(kind, base, kind.name, html`<p>There is no such update.</p>`);
