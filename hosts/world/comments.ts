/** What people wrote under the uploads of Wrenfold Loomworks. */
export interface WorldComment {
  id: string;
  video: string;
  daysAgo: number;
  author: string;
  /** The author's own page, or nothing. */
  site?: string;
  /** HTML, as the channel takes it from anybody. */
  html: string;
  /** The comment that it answers. */
  answers?: string;
}

export const comments: WorldComment[] = [
  {
    id: 'warp-01',
    video: 'winding-a-warp',
    daysAgo: 44,
    author: 'Orla Fennick',
    site: 'https://fennick-yarns.example/',
    html: '<p>Counting the cross in groups of ten saved my whole blanket. Do you tie the cross <em>before</em> you take the warp off the board?</p>'
  },
  {
    id: 'warp-02',
    video: 'winding-a-warp',
    daysAgo: 43,
    author: 'Isolde Wrenfold',
    html: '<p>Always before. Four ties, one in each arm of the cross.</p>',
    answers: 'warp-01'
  },
  {
    id: 'warp-03',
    video: 'winding-a-warp',
    daysAgo: 31,
    author: 'Tamsin Okoro',
    html: '<p>My board only takes three metres. Can I go round twice?</p>'
  },
  {
    id: 'warp-04',
    video: 'winding-a-warp',
    daysAgo: 12,
    author: 'best prices',
    html: '<p>Cheap yarn!!! <a href="https://cheap.example/a" onclick="steal()">here</a> <a href="https://cheap.example/b">and here</a><script>steal()</script><img src="https://cheap.example/seen.png" onerror="steal()"></p>'
  },
  {
    id: 'reed-01',
    video: 'sleying-a-reed',
    daysAgo: 40,
    author: 'Ruven Halloway',
    html: '<p>At which sett do you change from two ends in a dent to one? I have an 8 dent reed and wool of 12 ends.</p>'
  },
  {
    id: 'reed-02',
    video: 'sleying-a-reed',
    daysAgo: 39,
    author: 'Orla Fennick',
    site: 'https://fennick-yarns.example/',
    html: '<p>One, two, one, two works for me.</p>',
    answers: 'reed-01'
  },
  {
    id: 'draft-01',
    video: 'reading-a-draft',
    daysAgo: 88,
    author: 'Marek Lindqvist',
    html: '<p>First time I understood which way the treadling is read. Thank you.</p>'
  },
  {
    id: 'loose-01',
    video: 'why-warps-loosen',
    daysAgo: 60,
    author: 'Tamsin Okoro',
    html: '<p>Paper, not sticks! After two years I know why my edges were slack.</p>'
  },
  {
    id: 'kette-01',
    video: 'kette-aufbaeumen',
    daysAgo: 74,
    author: 'Brunhild Asmussen',
    html: '<p>Wie dick ist das Papier, das du zwischen die Lagen legst?</p>'
  },
  {
    id: 'twill-01',
    video: 'threading-a-twill',
    daysAgo: 0,
    author: 'Ruven Halloway',
    html: '<p>At 2:10 you skip a heddle, don’t you? Or is that the repair heddle?</p>'
  }
];
