/** Patterns by which questions of a quiz are found in English text. */

export const VAGUE =
  /\b(?:about|around|roughly|nearly|almost|some|maybe|perhaps|between|up to|or so|a few|several)\b/i;

/** Before a number: it does not count but point, or is part of a name. */
export const POINTS =
  /(?:\b(?:the|these|those|all|both|other|next|last|first|another|every|each|or|to|of|no|step|part|chapter|number|shaft|version|page|and|same|first)|[/x×–-])\s*$/i;

export const DEFINES =
  /^(An?|The)\s+((?:[\p{L}-]+\s){0,2}?[\p{L}-]+)\s+(is|are)\s+((?:an?|the|what|where|one)\b.{12,}[.!])$/u;

export const GERUND = /^([\p{Lu}][\p{L}-]+ing)\s+(is)\s+((?!not\b|easy|hard|so\b)\S.{13,}[.!])$/u;

export const BECAUSE = /^(.{12,}?),? (because) (?!of\b)((?:[\p{L}'’-]+ ){2,}.*?)[.!]$/u;

/** A sentence that begins so depends on what is around it, or says nothing sure. */
export const UNQUOTABLE =
  /^(?:if|when|before|after|until|once|now|today|next|last|maybe|perhaps|not|no|still|even|only|just|everything|nothing|others?|another)\b/i;

/** What is only supposed. */
export const SUPPOSED = /\b(?:would|could|might|imagine|say)\b/i;

/** What is no term that could be explained. */
export const NO_TERM =
  /\b(?:same|other|rest|first|second|third|last|next|one|only|trick|point|reason|answer|question|result|rule|thing|way|best|worst|problem|difference)\b/i;

/** What leads to a step and is no part of it. */
export const STEP_LEAD = /^(?:then|next|first|second|third|finally|now|after that),?\s+/i;

/** A reason that stands on a pronoun. */
export const ON_PRONOUN = /^(?:it|they|that|this|these|those|he|she)\b/i;

/** What is counted without mattering. */
export const COUNTED_IDLY =
  /^(?:times?|ways?|choices?|reasons?|things?|hands?|sides?|halves|ends? of)$/;

/** What is denied holds for other numbers as well. */
export const DENIED = /\b(?:not|never|no|cannot|nobody|none)\b|n['’]t\b/i;

/** What leaves open what is asked about. */
export const UNNAMED = /\b(?:it|it's|they|they're|them)\b/;
/** A condition at the end of a sentence with nothing that follows from it. */
export const HANGING_IF = /\b(?:and|but|or) (?:if|when) [^,]*$/i;
