/** HTML as the content of an Atom entry; as CDATA, since the writer of XML leaves `&lt;` as it is. */
export const htmlContent = (html: string) => ({
  '@type': 'html',
  $: html.replaceAll(']]>', ']]&gt;')
});
