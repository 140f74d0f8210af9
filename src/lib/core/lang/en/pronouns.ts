/** What a sentence begins with that goes on from the one before. */
export const LEANING_HEADS =
  /^(?:that's|they're|he's|she's|otherwise|or|but|because|which|then|same)$/;

/** Pronouns for one thing. */
export const SINGULARS: ReadonlySet<string> = new Set(['it', "it's", "it'll", "it'd", 'its']);
export const PERSONS: ReadonlySet<string> = new Set(
  "he she him her his he's she's he'd she'd he'll she'll".split(' ')
);
/** Nouns that "they" may stand for. */
export const PLURALS =
  /(?:[^s]s|people|men|women|children|feet|teeth|mice|everybody|everyone|family|team)$/;
/** Somebody of whom "he" or "she" may speak, though no noun says so. */
export const NOBODY_NAMED =
  /\b(?:who|somebody|someone|everybody|everyone|anybody|anyone|whoever)\b/;

/** "it" that stands for nothing: the weather, the hour, or what follows. */
export const SELF_EXPLAINING_AFTER_IT =
  /^it(?:(?:'s| is| was|'ll be| will be| would be) (?:(?:really|very|so|quite|too|getting|always|just|still|not|been) )*(?:raining|snowing|cold|hot|dark|late|early|windy|damp|time|worth|important|easy|hard|better|best|possible|impossible|nice|good|easier|called|my|your|our|a|an|the)| (?:depends|turns out|doesn't matter|seems|looks like|takes (?:\w+ ){1,4}to))\b/;
/** "they" that stands for people at large. */
export const GENERIC_AFTER_THEY = /^they (?:call|say|tell|told|said|sell|make|made)\b/;

/** What a text begins with that points at something outside it. */
export const POINTING_HEADS =
  /^(?:ours|yours|here|there|both|neither|one of them|(?:the|all) (?:first|second|third|last|other|others|rest|same|two|three|four|five))\b/i;
/** Among the first words of a text, what stands for something outside it. */
export const EARLY_PRONOUNS = /\b(?:it|they|them|that|those|this|these)\b/i;
