import { z } from 'zod';
import { refuseForeign } from '$lib/server/answers.ts';
import type { RequestHandler } from './$types.js';

/** Characters of a page that is shown. */
const LONGEST = 6_000_000;

const formSchema = z.object({
  /** A page that was put together in the browser: nothing of it is read here. */
  page: z.string().max(LONGEST),
  /** Where looks may come from. */
  blog: z.url({ protocol: /^https?$/ }).transform((url) => new URL(url).origin)
});

/** Shows a page in a sandbox in which nothing runs. */
export const POST: RequestHandler = async ({ request, url }) => {
  const refusal = refuseForeign(request, url.origin);
  if (refusal) return refusal;
  const fields = await request.formData().catch(() => null);
  const form = formSchema.safeParse(fields && Object.fromEntries(fields));
  if (!form.success) return new Response('The form is not complete.', { status: 400 });
  return shownAnswer(form.data.page, form.data.blog);
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
