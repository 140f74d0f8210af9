const SPECIAL = /[&<>"]/;

/** Text as it stands in HTML, also in an attribute. */
export const escapeHtml = (text: string): string =>
  !SPECIAL.test(text)
    ? text
    : text
        .replaceAll('&', '&amp;')
        .replaceAll('<', '&lt;')
        .replaceAll('>', '&gt;')
        .replaceAll('"', '&quot;');
