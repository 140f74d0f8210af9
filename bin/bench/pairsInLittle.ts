/** Pairs 10,000 videos with 10,000 posts in a process that may not have much memory, and prints the most that it held, in MB. */
import { largeCatalogue } from '../train/catalogue/sets.ts';
import { toldIn } from '../train/catalogue/judge.ts';
import { proposePairs } from '../../src/lib/core/twins/likeness/propose.ts';

const proposals = proposePairs(...toldIn(largeCatalogue(10_000)), { refused: new Set() });
if (proposals.length === 0) throw new Error('Nothing was paired.');
console.log(Math.round(process.resourceUsage().maxRSS / 1000));
