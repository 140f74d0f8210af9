/** Words whose full stop ends no sentence. Alternatives of a pattern. */
export const ABBREVIATIONS =
  'mr|mrs|ms|dr|prof|st|jr|sr|vs|approx|nos|fig|e\\.g|i\\.e|cf|ca|vol|pp';
/** Words whose full stop may end a sentence as well: the next word tells. */
export const MAY_END = 'u\\.s|u\\.s\\.a|u\\.k|e\\.u|a\\.m|p\\.m|etc|inc|ltd';
