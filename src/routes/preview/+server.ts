import { z } from 'zod';
import { showAsPublished, shownPostSchema } from '$lib/core/article/review/asPublished.ts';
import { cleanHtml } from '$lib/core/feeds/clean.ts';
import { escapeHtml } from '$lib/core/text/html.ts';
import { decodeText } from '$lib/core/feeds/decode.ts';
import { problemAnswer, refuseForeign } from '$lib/server/answers.ts';
import { askOutside } from '$lib/server/outside.ts';
import { outsidePolicy } from '$lib/server/policy.ts';
import type { RequestHandler } from './$types.js';

const formSchema = z.object({
  /** A post of the blog whose page serves as the pattern. */
  page: z.string(),
  post: z.string().transform((text) => shownPostSchema.parse(JSON.parse(text)))
});

/** Shows a post on the blog's own page, in a sandbox in which nothing runs. */
export const POST: RequestHandler = async ({ request, url }) => {
  const refusal = refuseForeign(request, url.origin);
  if (refusal) return refusal;
  const form = formSchema.safeParse(Object.fromEntries(await request.formData()));
  if (!form.success) return new Response('The form is not complete.', { status: 400 });
  const post = { ...form.data.post, html: cleanHtml(form.data.post.html, form.data.page).html };
  try {
    const call = { url: form.data.page, method: 'GET' } as const;
    const outside = await askOutside(call, outsidePolicy(), request.signal);
    const page = decodeText(outside.bytes, outside.headers['content-type']);
    const shown = outside.status < 400 ? showAsPublished(page, outside.url, post) : null;
    return shownAnswer(shown ?? bare(post.title, post.html), new URL(outside.url).origin);
  } catch (error) {
    return problemAnswer(error);
  }
};

/** The sandbox gives the page no origin, no scripts and no forms; only looks come from the blog. */
function shownAnswer(html: string, blog: string): Response {
  const policy = [
    'sandbox allow-popups',
    "default-src 'none'",
    `style-src ${blog} 'unsafe-inline' https:`,
    `font-src ${blog} https: data:`,
    `img-src ${blog} http: https: data:`,
    `media-src ${blog} http: https:`,
    `frame-src http: https:`,
    "form-action 'none'",
    "frame-ancestors 'self'"
  ];
  return new Response(`<!doctype html>${html}`, {
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy': policy.join('; '),
      'Cache-Control': 'no-store'
    }
  });
}

const bare = (title: string, html: string): string =>
  `<html><head><meta charset="utf-8"><title>${escapeHtml(title)}</title></head><body><p>The blog’s pages do not say where a post stands on them, so this is the bare post.</p><h1>${escapeHtml(title)}</h1>${html}</body></html>`;
