const list = (words: string): ReadonlySet<string> => new Set(words.trim().split(/\s+/));

/** What a clause begins with that has its subject at its head. */
export const CLAUSE_SUBJECTS = list(`
i you we they he she it there
i'm you're we're they're he's she's it's there's i've you've we've they've i'd you'd we'd they'd he'd
she'd it'd i'll you'll we'll they'll he'll she'll it'll
`);

/** Words by which a clause depends on another, so that neither can be cut off without care. */
export const SUBORDINATORS = list(`
if when whenever because that which who whose as since until till while where wherever how what
whatever once unless though although before after whether than why time times like either neither
more less
`);
