/** A word that numbers are said with, or digits. */
export const NUMBER_WORD =
  /^(?:\d[\d.,:/]*|(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety|hundred|thousand|million|half)(?:-[a-z]+)?)$/;

/** Verbs that tell a figure of something. */
export const MEASURES =
  /^(?:is|are|was|were|has|have|had|takes?|took|weighs?|weighed|costs?|needs?|needed|gives?|gave|makes?|made|lasts?|lasted|holds?|held|runs?|ran)$/;

/** What may stand between the verb and its figure. */
export const ABOUT = /^(?:about|around|only|just|roughly|nearly|almost|exactly|over|under|a|the)$/;
/** What says too little to name a row of a table. */
export const UNNAMED =
  /^(?:i|you|we|they|he|she|it|this|that|these|those|there|here|which|who|what|one|ones|thing|things|bit|everything|something|it's|that's|there's)$/;
