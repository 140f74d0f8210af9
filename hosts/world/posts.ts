/**
 * The posts of The Wrenfold Notebook. `{embed:id}`, `{watch:id}` and `{picture:id}` become addresses
 * of the channel.
 */

export interface WorldPost {
  slug: string;
  title: string;
  daysAgo: number;
  status: 'published' | 'draft';
  categories: string[];
  summary: string;
  /** The picture of this video stands above the post. */
  pictureOf?: string;
  content: string;
}

const embed = (id: string, title: string) =>
  `<figure class="video"><iframe src="{embed:${id}}" width="640" height="360" title="${title}" allowfullscreen loading="lazy"></iframe></figure>`;

export const posts: WorldPost[] = [
  {
    slug: 'winding-a-warp-on-a-board',
    title: 'Winding a warp on a board, start to finish',
    daysAgo: 47,
    status: 'published',
    categories: ['At the loom', 'Beginners'],
    summary: 'The guide string, the cross, the count and the chain.',
    pictureOf: 'winding-a-warp',
    content: `${embed('winding-a-warp', 'Winding a warp on a board, start to finish')}
<p>A warp is a set of threads of the same length, kept in order. The board gives the length. The cross gives the order. Everything else is patience, and a strong cotton for the ties.</p>
<h2>The guide string</h2>
<p>Tie a red string as long as your warp to the first peg and walk it back and forth until it ends at a peg. If it does not end at a peg, move one. Every thread will follow this string, so a path that is too short makes a warp that is too short.</p>
<p>Ours was four metres for three tea towels, with 240 ends of cotton 8/2 at eight to the centimetre.</p>
<h2>The cross</h2>
<p>Going down, over the first peg and under the second. Coming back, under the first and over the second. The two paths cross between the pegs, and that keeps every thread in its place, even when you drop the whole chain on the floor.</p>
<h2>Counting</h2>
<p>Lay a contrasting cotton under the threads and cross its ends every twenty. Count bundles, not threads: twelve bundles of twenty. Tie new yarn in at an end peg and never in the middle of the path.</p>
<h2>Ties and chain</h2>
<p>Four ties at the cross, one at each loop, and a choke tie every metre. Then chain it from the bottom, and stop half a metre before the cross. The worksheet for planning your own warp is <a href="/files/warp-worksheet.txt">here</a>.</p>`
  },
  {
    slug: 'how-i-sley-a-reed',
    title: 'How I sley a reed',
    daysAgo: 40,
    status: 'published',
    categories: ['At the loom'],
    summary: 'The middle, the cross, and a look against the window.',
    pictureOf: 'sleying-a-reed',
    content: `${embed('sleying-a-reed', 'How I sley a reed')}
<p>Sleying is drawing each thread through a slot in the reed. The reed spaces the threads and beats the weft, and so every mistake here runs through the cloth from one end to the other.</p>
<h2>Begin in the middle</h2>
<p>Measure the reed, mark its centre with a thread and take half the width of the warp to each side. A cloth that sits to one side makes the beater swing unevenly.</p>
<h2>Take the top thread</h2>
<p>Hold the cross where you can see it and always take the thread that lies on top. Tie ten dents at a time in a slip knot below the reed.</p>
<h2>Hold it up to the window</h2>
<p>An empty dent is a bright line and a crowded one is a dark line. Run a finger along the back: where it stops, two ends are crossed. Now it is a minute's work. After threading it is an hour's.</p>`
  },
  {
    slug: 'how-to-read-a-draft',
    title: 'How to read a draft, with three to try',
    daysAgo: 88,
    status: 'published',
    categories: ['Theory', 'Beginners'],
    summary: 'Four parts, and a pencil.',
    content: `<p>A draft has a threading at the top, a tie-up in the corner, a treadling down the side and a drawdown in the middle. The first three are instructions and the last one is what you get.</p>
<p>We read ours from right to left and from the top down. Others do it the other way, and it makes no difference as long as you stay with one direction.</p>
<h2>Fill in the drawdown yourself</h2>
<p>Take the first pick and see which treadle it names. Go to the tie-up and see which shafts that treadle lifts. Go along the threading and paint every thread that is on one of them. After eight picks there is a diagonal, and after that you will not need us.</p>
<h2>Two tests before you wind</h2>
<ul><li>Look for floats: more than five squares of one colour in a row will catch on rings and buttons.</li><li>Look at the edges: if the first and the last thread share a shaft, add one thread.</li></ul>
<p>There is a <a href="{watch:reading-a-draft}">video of the whole thing</a>, which takes six minutes, and there are <a href="/files/three-drafts.txt">three small drafts</a> with the drawdown left empty.</p>`
  },
  {
    slug: 'why-a-warp-loosens',
    title: 'Why a warp loosens, and what to do about it',
    daysAgo: 61,
    status: 'published',
    categories: ['At the loom', 'Questions'],
    summary: 'Uneven winding, beaming without paper, or the weave itself.',
    pictureOf: 'why-warps-loosen',
    content: `<p>Ansel asked why some of his threads hang like washing lines after half a metre. There are only three reasons, and you can tell them apart with your hand.</p>
${embed('why-warps-loosen', 'Why a warp loosens')}
<h2>Loose in a group</h2>
<p>The warp was wound with different tension. Push a flat stick under the group at the back beam.</p>
<h2>Loose and tight by turns</h2>
<p>It was beamed without paper, and the layers sank into one another. Next time, stiff paper at every turn.</p>
<h2>Loose in a stripe</h2>
<p>The weave takes up less thread there. Two beams, or a weight on that stripe.</p>
<h2>One loose thread</h2>
<p>A bulldog clip at the back of the loom. It pulls just that thread, all the way to the end.</p>`
  },
  {
    slug: 'kette-aufbaeumen-material',
    title: 'Die Kette aufbäumen, ganz in Ruhe',
    daysAgo: 74,
    status: 'published',
    categories: ['Auf Deutsch'],
    summary: 'Material und Reihenfolge zum Video.',
    pictureOf: 'kette-aufbaeumen',
    content: `<p>Zum Video gibt es hier die Materialliste und die Reihenfolge zum Ausdrucken.</p>
${embed('kette-aufbaeumen', 'Die Kette aufbäumen, ganz in Ruhe')}
<h2>Material</h2>
<ul><li>Reedkamm mit zwei Zähnen auf den Zentimeter</li><li>zwei Kreuzstäbe</li><li>vier Flaschen mit anderthalb Litern Wasser</li><li>Packpapier, ein paar Zentimeter breiter als die Kette</li></ul>
<h2>Reihenfolge</h2>
<ol><li>In der Mitte beginnen, vier Fäden in jede Lücke.</li><li>An jeden Strang eine Flasche hängen.</li><li>Bei jeder Umdrehung einen Bogen Papier einlegen.</li><li>Mit der flachen Hand die Spannung prüfen.</li></ol>`
  },
  {
    slug: 'a-colour-plan-for-winter-scarves',
    title: 'A colour plan for winter scarves',
    daysAgo: 4,
    status: 'published',
    categories: ['Colour', 'Projects'],
    summary: 'Five yarns, one rule, twelve scarves.',
    content: `<p>Every November we wind one long warp for twelve scarves, and every November we stand in front of the shelf for an hour and cannot decide. This year we made a rule first and looked at the shelf afterwards.</p>
<h2>One dark, one light, one loud</h2>
<p>The rule is three parts dark, two parts light and one thread of something loud. Dark means that you have to hold it to the window to see its colour. Light means that it looks pale beside your hand. Loud is whatever you would not dare to wear by itself.</p>
<p>For these scarves the dark is a walnut brown and a blue that is nearly black. The light is undyed grey and a cream that we over-dyed with onion skins. The loud one is a madder coral, the third bath of Juna's pot.</p>
<figure><img src="{picture:madder-with-juna}" alt="Cloth in madder red and cream, woven in a small check"><figcaption>Madder coral on cream.</figcaption></figure>
<h2>Wrap it before you wind it</h2>
<p>We wrap the stripes around a strip of card, exactly as many threads as there will be in the warp, and leave it on the windowsill for two days. You see it at breakfast and you see it at night. Two of the five wraps we liked on Monday were dull on Wednesday, because the light and the dark were too near to each other.</p>
<p>Squint at it. If the stripes run together when you squint, they will run together across the street.</p>
<h2>What changes in the weaving</h2>
<p>A colour in the warp is only half of the colour of the cloth. The other half is the weft. A brown warp with a grey weft is a warm grey. With a coral weft it is a rust. We wove ten centimetres with each of the five yarns before we chose, and the one we had bought for it was the worst.</p>
<p>The whole warp is 216 ends, 36 repeats of six, at six to the centimetre, in wool of 300 metres to 100 grams. Twelve scarves of 1.70 metres and the fringes need 25 metres of warp, which is about 5,400 metres of yarn.</p>
<h2>Which would you choose?</h2>
<p>There are still two scarves left on the loom and no decision about them. One would be walnut, cream and coral. The other would be midnight, grey and a yellow that hurts. Write to us before Friday.</p>`
  },
  {
    slug: 'what-a-woven-metre-costs',
    title: 'What a woven metre costs, and why',
    daysAgo: 16,
    status: 'published',
    categories: ['The workshop'],
    summary: 'Our sums, with the real numbers.',
    content: `<p>People ask at every market why a scarf costs 140. Here are our sums. They are not a defence. They are what we put on paper when we decided whether we could live from this.</p>
<h2>The yarn</h2>
<p>A metre of our wool cloth, 70 centimetres wide, takes 210 grams of yarn with the waste at both ends of the warp. At 62 a kilo that is 13.02. Natural dyeing adds about 4 for the dye and the gas.</p>
<h2>The hours</h2>
<p>We wind, beam, thread and sley for a warp of twenty metres in eleven hours, so that is 33 minutes a metre. Weaving is 50 minutes a metre, when nothing breaks. Washing, mending and pressing is 20 minutes. Together it is an hour and 43 minutes.</p>
<h2>The loom and the roof</h2>
<p>Rent, light, heating, the reed that rusted and the website come to 19 a day. On a good day there are four metres, on a bad day there is one.</p>
<h2>The sum</h2>
<p>If an hour is worth 22, the metre is 38 in work, 17 in yarn and dye and 7 in roof: 62. A scarf is 1.70 metres, so it is 105 before it has been photographed, packed, sold at a stall that costs 90 a day, or not sold. That is where 140 comes from.</p>
<p>We tried weaving faster. We also tried cheaper yarn. The first gave us sore shoulders, and the second gave us scarves that came back.</p>`
  },
  {
    slug: 'a-day-in-the-flax-field',
    title: 'A day in the flax field',
    daysAgo: 30,
    status: 'published',
    categories: ['Fibre', 'Visits'],
    summary: 'Pulling, retting and a field that flowers until noon.',
    content: `<figure><img src="{picture:quiet-weaving}" alt="A length of plain linen, close by"></figure>
<p>Flax flowers in the morning and has finished by noon. We were late, and so we saw a green field with a few blue dots that had overslept.</p>
<h2>Pulled, not cut</h2>
<p>Flax is pulled out of the ground with its root, because the fibre runs all the way down. If it were cut, you would lose the longest ten centimetres. Five of us pulled for an hour and had a piece as large as a living room.</p>
<h2>Retting</h2>
<p>The bundles lie in the grass for three to six weeks, and the dew and the fungi eat the glue that holds the fibre to the stalk. This is called dew retting. You turn it every few days. If it lies too short, the fibre does not come off. If it lies too long, it becomes weak. The farmer breaks one stalk every morning and listens to it.</p>
<h2>Breaking and hackling</h2>
<p>After that it is dried, broken, scraped and drawn through combs with finer and finer teeth. What stays in your hand is the line, as long as your arm and as shiny as hair. What stays in the comb is the tow. From a hundred kilos of straw there are about five kilos of line.</p>
<p>We brought home 800 grams and will spin it in winter, wet, with a bowl of water between our knees.</p>`
  },
  {
    slug: 'open-studio-dates',
    title: 'Open studio, and a small loom for sale',
    daysAgo: 22,
    status: 'published',
    categories: ['News'],
    summary: 'Two Saturdays and a table loom.',
    content: `<p>The studio is open on the first two Saturdays of next month, from ten until four. There will be soup. Come by the mill path, because the bridge is still closed.</p>
<p>We are also selling the small table loom: eight shafts, sixty centimetres, with two reeds and a bench that does not match. It has woven about two hundred samples and one very long belt. You may try it before you decide.</p>`
  },
  {
    slug: 'hemstitching-on-the-loom',
    title: 'Hemstitching on the loom',
    daysAgo: 2,
    status: 'draft',
    categories: ['Finishing'],
    summary: 'A hem made while the warp is still tight.',
    content: `${embed('hemstitching', 'Hemstitching on the loom')}
<p>You need a blunt needle and a length of weft four times as long as the cloth is wide. Groups of four threads, three picks deep.</p>
<p>(Still to come: the drawing of the second stitch.)</p>`
  }
];
