import { html, raw } from 'hono/html';
import type { HtmlEscapedString } from 'hono/utils/html';
import type { Email } from 'postal-mime';
import sanitize from 'sanitize-html';
import type { Message } from './message.ts';

type Html = HtmlEscapedString | Promise<HtmlEscapedString>;
export const NAME = 'Letterbox of the Loomworks';

function page(base: string, title: string, body: Html): Html {
  return html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>${title}</title>
        <link rel="describedby" type="application/json" href="${base}about.json" />
        <style>
          body {
            font:
              16px/1.5 Georgia,
              serif;
            max-width: 42rem;
            margin: 0 auto;
            padding: 1rem;
            background: #f7f3f7;
            color: #2a2230;
            overflow-wrap: anywhere;
          }
          pre {
            white-space: pre-wrap;
            font: inherit;
          }
          section {
            background: #fff;
            border: 1px solid #cdbfd1;
            padding: 0 1rem;
            margin: 1rem 0;
          }
          img {
            max-width: 100%;
          }
        </style>
      </head>
      <body>
        <h1><a href="${base}">${NAME}</a></h1>
        ${body}
      </body>
    </html>`;
}

export const listPage = (base: string, messages: readonly Message[]): Html =>
  page(
    base,
    NAME,
    messages.length === 0
      ? html`<p>No mail yet.</p>`
      : html`<ul>
          ${messages.map(
            (m) =>
              html`<li>
                <a href="${base}read/${m.id}">${m.subject || 'Without a subject'}</a>, from
                ${m.from}, ${new Date(m.at).toUTCString()}
              </li>`
          )}
        </ul>`
  );

/** One message: its parts as they were sent, the HTML one cleaned. */
export const messagePage = (base: string, message: Email): Html =>
  page(
    base,
    message.subject ?? NAME,
    html`<h2>${message.subject}</h2>
      <p>From ${message.from?.name} ${message.from?.address}</p>
      <section aria-label="As HTML">${raw(sanitize(message.html ?? ''))}</section>
      <section aria-label="As text"><pre>${message.text}</pre></section>
      ${
        message.attachments.length > 0
          ? html`<ul aria-label="Files">
              ${message.attachments.map((a) => html`<li>${a.filename} (${a.mimeType})</li>`)}
            </ul>`
          : ''
      }`
  );

export const missingPage = (base: string): Html =>
  page(base, NAME, html`<p>There is no such message.</p>`);
