const list = (words: string): ReadonlySet<string> => new Set(words.trim().split(/\s+/));

/** English words that tell nothing of a topic: function words and the small change of speech. */
export const ENGLISH_STOP_WORDS = list(`
i me my mine myself we us our ours ourselves you your yours yourself yourselves he him his himself
she her hers herself it its itself they them their theirs themselves what which who whom whose this
that these those am is are was were be been being have has had having do does did doing done would
should could ought i'm you're he's she's it's we're they're i've you've we've they've i'd you'd he'd
she'd we'd they'd i'll you'll he'll she'll we'll they'll it'll that'll isn't aren't wasn't weren't
hasn't haven't hadn't doesn't don't didn't won't wouldn't can't cannot couldn't shouldn't mustn't
let's that's who's what's here's there's when's where's why's how's a an the and but if or because
as until while of at by for with about against between into through during before after above below
to from up down in out on off over under again further then once here there when where why how all
any both each few more most other some such no nor not only own same so than too very one ones every
least less many now ever never always say says said also get gets got getting go goes going gone
just make makes made making put puts see sees seen whether like well back even still way ways take
takes since another however two three four five six seven eight nine ten first may might must shall
will can much upon without within though although thing things something anything everything
nothing someone okay ok really actually basically um uh yeah yes know think want wants wanted little
bit kind sort lot lots let come comes gonna right look looks looking need needs give gives tell
around along away onto quite maybe perhaps else already yet sure course good great nice alright
today video channel everyone everybody people guys hi hello bye thanks thank welcome
`);

/** Pronouns and demonstratives that lean on what was said before. */
export const ANAPHORA = list(
  'he she they it him her them his their its hers theirs this these those that such'
);

/** Words at the head of a sentence that tie it to the one before. */
export const CONNECTIVES = list(
  'but and or so then however therefore thus also moreover furthermore yet still nor nevertheless besides meanwhile otherwise instead for'
);

/** Names of days, months, languages and peoples, which are written with a capital in any place. */
export const ALWAYS_CAPITAL = list(`
monday tuesday wednesday thursday friday saturday sunday january february april june july august
september october november december christmas easter english german french italian spanish dutch
swedish norwegian danish finnish scottish irish welsh british american european chinese japanese
indian russian polish portuguese england scotland ireland wales britain germany france italy spain
sweden norway denmark finland europe america africa asia australia canada china japan india
`);
