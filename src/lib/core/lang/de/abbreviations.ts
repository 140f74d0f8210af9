/** Words whose full stop ends no sentence. Alternatives of a pattern. */
export const ABBREVIATIONS = 'bzw|z\\.b|d\\.h|u\\.a|nr|ca|evtl|ggf';
/** Words whose full stop may end a sentence as well: the next word tells. */
export const MAY_END = 'usw|etc';
