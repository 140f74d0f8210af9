import type { Properties } from './properties.ts';

/** The form-encoded syntax, put into the shape of the JSON one. */
export function fromForm(form: Record<string, unknown>): unknown {
  if (typeof form.action === 'string') return { action: form.action, url: form.url };
  const properties: Properties = {};
  for (const [key, value] of Object.entries(form)) {
    if (key === 'h' || key === 'access_token') continue;
    const name = key.replace(/\[(html)?\]$/, '');
    properties[name] = (Array.isArray(value) ? value : [value]).map((v) =>
      name === 'content' && key === 'content[html]' ? { html: v } : v
    );
  }
  return { type: [`h-${String(form.h ?? 'entry')}`], properties };
}

/** What an address is made from. */
export function slugOf(value: string): string {
  const slug = value
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 80);
  return slug || 'post';
}
