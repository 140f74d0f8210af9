/** What only speech needs, and what of it is written otherwise. Alternatives of patterns, in lower case. */
export const GREETINGS =
  "hello|hi|hey|good (?:morning|evening|afternoon)|welcome|what's up|what is up";
export const PARTINGS =
  "thank you (?:so much |very much )?for (?:watching|joining|being)|thanks (?:so much |a lot )?for (?:watching|joining|being|listening)|thank you(?: all| everyone| everybody)?$|see you|bye|goodbye|until next time|catch you|i'll see you|cheers|take care|have a (?:good|great|nice|lovely)|happy \\w+ing$";
/** What follows a greeting that says what the video is about. */
export const PURPOSES = "today|going to|we're|we are|i want|i'll";
export const GREETED =
  /\b(?:welcome (?:back )?to (?:the|my|our|another)|see you (?:in the next|next|there|then|soon|on)|happy (?:weaving|sewing|painting|baking|gardening|crafting)$)\b/;
export const CALLS =
  'subscri\\w+|hit (?:the|that) bell|like button|(?:give|leave) (?:it|this|the video|us|me)? ?a (?:like|thumbs)|thumbs up|in the comments|comment below|(?:leave|drop|write|put|tell me|let me know|them)(?: \\w+){0,6} (?:below|comments?)|let me know (?:in|what|which|how|if)|link(?:ed|s)? (?:is |are )?(?:below|in the description|in the bio|down below)|follow me on|share this video|patreon|sponsor\\w*';
export const SMALL_TALKS =
  "okay|ok|alright|all right|right|perfect|great|good|nice|cool|there we go|there you go|here we go|so here we go|there it is|and there it is|that's it|and that's it|that's all|that's pretty much it|let's go|let's do it|let's jump in|let's get started|let's start|so let's begin|let's begin|ready|done|wow|oh wow|yeah|yes|no|exactly|look at that|look at this|does that make sense|you see|you see that|you hear that|see|how's that|how was that|i'm not joking|seriously|come on|you know|i know|i hope|sorry|excuse me|where was i|so where was i|let me see|hang on|one second|there|and done|so|well|anyway";
/** Talk about what is in sight, which a reader cannot see. */
export const POINTING =
  /\b(?:look at (?:this|that|these|those)|see (?:this|that|these|those|it here|here)|(?:like|just like) (?:this|that|so)$|(?:right|over|down|up|in) (?:here|there)\b|can you (?:see|hear)|do you see|you can see (?:it )?here|watch (?:this|my|what)|this (?:one|bit|part|side|corner|end|button|page|thing) here|as you can see|i'm (?:pointing|holding|pressing|clicking)|there we go|here is one i|here's one i)\b/;

/** Openings that are left out. */
export const HEADS = [
  'okay',
  'ok',
  'alright',
  'all right',
  'so now',
  'and now',
  'now then',
  'now',
  'well',
  'yeah',
  'yes',
  'um',
  'basically',
  'actually',
  'honestly',
  'anyway',
  'seriously',
  'obviously',
  'i mean',
  'you know',
  'you see',
  'as you can see',
  'as i said',
  'like i said',
  'and so',
  'so',
  'and',
  'but like',
  'and then so',
  'right so',
  'right',
  'oh and',
  'oh'
];

/** Phrases that are cut wherever they stand. */
export const FILLER_PHRASES = [
  'as you can see here',
  'as you can see there',
  'as you can see',
  'you can see that',
  'like i said',
  'as i said',
  'or something like that',
  'and stuff like that',
  'and things like that',
  'you know',
  'i mean',
  'kind of',
  'sort of',
  'a little bit of',
  'go ahead and',
  'to be honest',
  'to be fair',
  'if you like',
  'as it were',
  'what you want to do is',
  "what you're going to want to do is",
  "what you're gonna want to do is",
  "what you're going to do is",
  "what you're gonna do is",
  "what you'll want to do is",
  'what you need to do is',
  'what you do is',
  'what i did is',
  'what i did was',
  'what i do is',
  "what i'm going to do is",
  "what i'm gonna do is",
  "what we're going to do is",
  "what we're gonna do is",
  'basically',
  'literally',
  'obviously',
  'honestly',
  'actually'
];

/** Words after or before which a phrase is no filler but means what it says. */
export const MEANT: Record<string, { after?: RegExp; before?: RegExp }> = {
  'you know': {
    before: /^(?:do|did|if|as|when|what|that|how|let|don't|didn't|once|sure)$/,
    after:
      /^(?:what|how|that|the|if|why|where|it|whether|which|who|when|about|this|your|a|exactly)$/
  },
  'kind of': {
    before:
      /^(?:a|the|this|that|what|which|some|any|every|each|one|same|of|another|other|different)$/
  },
  'sort of': {
    before:
      /^(?:a|the|this|that|what|which|some|any|every|each|one|same|of|another|other|different)$/
  },
  'i mean': { before: /^(?:what|that|and|which|if)$/, after: /^(?:it|by|the|that)$/ },
  'you can see that': { before: /^(?:so|that|if|until|where|when|then|until)$/ },
  'a little bit of': { before: /./ },
  'if you like': { after: /^(?!$)/, before: /^(?:so|and|but|that|because|or)$/ }
};
/** A head that joins: "so that", "now and then", "right hand", "well beyond". */
export const JOINED: Record<string, RegExp> = {
  so: /^(?:that|much|many|far|long|often|little|few|is|are|do|does|did|will)$/,
  now: /^(?:and)$/,
  right: /^(?!so$|now$|then$|okay$|let's$|we$|you$|i$)/,
  well: /^(?:beyond|before|after|over|under|below|above|worn|made|done|known)$/,
  yeah: /^$/,
  and: /^(?:yet)$/
};

/** Colloquial spellings and what is written for them. */
export const WRITTEN_FOR: Readonly<Record<string, string>> = {
  gonna: 'going to',
  wanna: 'want to',
  gotta: 'have to',
  kinda: 'rather',
  lemme: 'let me',
  "'cause": 'because',
  cos: 'because',
  cuz: 'because'
};

/** Small words of speech, which go where commas stand around them. */
export const BETWEEN_COMMAS =
  /^(?:like|okay|ok|right|yeah|see|well|say|so|now|anyway|alright|also)$/;
/** What follows "just" where it is needed. */
export const JUST_NEEDED =
  /^(?:as|about|above|after|before|below|beyond|behind|enough|inside|like|outside|over|past|right|short|under|when|where|in|now|then|because|one|two|three|four|five|six|the|a|an|\d.*)$/;

/** Endings that are left out. */
export const TAILS = ['you know what i mean', 'you know', 'or whatever', 'as well right'];
export const AFTER_COMMA = /^(?:right|okay|ok|yeah|huh|see|anyway|though)$/;
export const TAG_QUESTION =
  /^(?:isn't|doesn't|don't|aren't|won't|can't|wasn't|didn't|is|does|can|do) (?:it|they|you|he|she|we)$/;

/** Sounds that fill a pause. */
export const FILLERS = 'um umm uh uhh uhm er erm ah hm hmm mm mhm mmm'.split(' ');

/** What says what is to come. */
export const AIMS =
  "today|this video|this post|going to (?:show|make|learn|talk|look|wind|build|teach|walk|thread|weave)|i(?:'ll| will) show|how to|we're going to|we are going to|in this";
