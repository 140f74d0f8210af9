/**
 * Spoken signposts: turns of phrase with which a speaker of English opens the next part or closes
 * the last. Weights are log-odds, tuned on talks that the reported figures do not come from.
 */
const HEAD = '^(?:(?:okay|ok|alright|all right|right|well|so|and|but|now|then) ){0,2}';
const NTH =
  '(?:first|second|third|fourth|fifth|sixth|seventh|next|last|final|other|number \\w+|biggest|easiest)';
const THING =
  '(?:thing|things|step|mistake|question|reason|tip|trick|one|part|way|option|problem|rule|point|bit|stage|idea|method|kind|type|choice|cause|rhythm|exercise|chord|group)';

const at = (pattern: string): RegExp => new RegExp(HEAD + pattern);

const OPENERS: readonly [pattern: RegExp, odds: number][] = [
  [at(`(?:the|my|our) (?:\\w+ )?${NTH} (?:\\w+ )?(?:${THING}|is|comes|was)\\b`), 2.6],
  [at(`(?:step|number|tip|part|mistake|question) (?:one|two|three|four|five|six|\\d+)\\b`), 2.8],
  [
    at(
      `let's (?:talk about|move on|move|start|begin|look at|have a look|get|take|go|do|make|see|jump|turn|try|say|put|open|find|build|set)\\b`
    ),
    2.2
  ],
  [/^(?:okay|ok|alright|all right|right) (?:so|now|then|let's|we)\b/, 2.2],
  [/^(?:okay|ok|alright|all right)\b/, 1.6],
  [/^now (?:let's|we|for|the|that|to|comes?|on|about|this|if|i|it's|you|what)\b/, 1.6],
  [/^now\b/, 1.3],
  [/^next\b/, 2.6],
  [/^(?:finally|lastly|moving on|after that)\b/, 2.2],
  [/^(?:to (?:begin|start|finish|finish off|sum up)|first of all|in conclusion)\b/, 2.0],
  [/^(?:first|second|secondly|third|thirdly)\b/, 1.6],
  [/^(?:and |so )?before (?:we|i|you)\b/, 2.2],
  [/^(?:so )?(?:that's|that is) (?:it|all) (?:for|about|on|there is|with)\b/, 2.6],
  [/^(?:so )?(?:here's|here is|here are|there is|there's) (?:what|how|the|a|an|one|my)\b/, 0.8],
  [/^(?:and |so |but )?what about\b/, 1.6],
  [
    /^(?:and |so |but |now )?(?:why|how|what|where|when|which) (?:do|does|is|are|should|can|if)\b/,
    0.7
  ],
  [at(`(?:one|a few|some) (?:more|last|final|other) (?:thing|things|tip|word|question)\\b`), 2.2],
  [at(`(?:we|i|you) (?:come|move|go|turn|get|can) (?:now |on |back |over )?to\\b`), 1.8],
  [/^(?:and |so )?once (?:you|that|it|we|the|everything)\b/, 0.7],
  [
    /^(?:so )?when (?:it|everything|all|that|they|you|the) (?:is|are|has|have|come|comes|get)\b/,
    0.6
  ],
  [/^(?:and )?(?:here we|there we|so this is|this is)\b/, 0.4],
  [
    /^(?:in the next video|thank you|thanks|see you|that's it|if this helped|if you have any)\b/,
    1.2
  ],
  [/^(?:hello|hi|hey|good morning|good evening|welcome)\b/, 0.6]
];

const CLOSERS: readonly [pattern: RegExp, odds: number][] = [
  [/\b(?:that's|that is) (?:it|all|all it is|all there is to it|the whole \w+|everything)$/, 0.9],
  [
    /^(?:and )?(?:there we (?:go|are)|there it is|perfect|and that's it|done|that's done|good)\b/,
    0.6
  ],
  [/\b(?:we're|you're|and it's) (?:done|finished|ready)$/, 0.8]
];

/** Log-odds of a part beginning with a sentence, by its first words and the last of the one before. */
export function signpostOdds(bareSentence: string, bareBefore: string): number {
  let odds = 0;
  for (const [pattern, weight] of OPENERS) {
    if (weight > odds && pattern.test(bareSentence)) odds = weight;
  }
  for (const [pattern, weight] of CLOSERS) {
    if (pattern.test(bareBefore)) return odds + weight;
  }
  return odds;
}
