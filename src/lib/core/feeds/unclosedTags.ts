/** Times the length of a document that may be looked through in vain for the ends of tags. */
const MOST = 8;

/**
 * Whether so many tags of an XML document have no end that a parser which looks for each would be
 * held up. One pass: tags that end are passed over.
 */
export function hasManyUnclosedTags(xml: string): boolean {
  let left = MOST * xml.length;
  for (let at = xml.indexOf('<'); at >= 0 && left >= 0; at = xml.indexOf('<', at + 1)) {
    if (xml.startsWith('<!--', at)) at = endOf(xml, '-->', at);
    else if (xml.startsWith('<![', at)) at = endOf(xml, ']]>', at);
    else {
      const end = endOfTag(xml, at);
      if (end < 0) left -= xml.length - at;
      else at = end;
    }
  }
  return left < 0;
}

/** Without one, the parser gives up at once. */
const endOf = (xml: string, sign: string, from: number): number => {
  const end = xml.indexOf(sign, from);
  return end < 0 ? xml.length : end;
};

/** Where a tag ends: at `>` outside quotation marks; -1 where it does not. */
function endOfTag(xml: string, from: number): number {
  let quote = 0;
  for (let at = from + 1; at < xml.length; at++) {
    const code = xml.charCodeAt(at);
    if (quote) {
      if (code === quote) quote = 0;
    } else if (code === 34 || code === 39) quote = code;
    else if (code === 62) return at;
  }
  return -1;
}
