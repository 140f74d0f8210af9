/** What made channels are about. Nothing of one craft is used by another, so that half can be held out. */
export interface Craft {
  name: string;
  /** Things that are made or mended, as English and, where the blog is kept in it, German say them. */
  things: readonly (readonly [en: string, de?: string])[];
  /** What is done with them: as a title says it, and words that belong to it. */
  tasks: readonly Task[];
  people: readonly string[];
  towns: readonly string[];
  units: readonly (readonly [en: string, de?: string])[];
  thanks: string;
}

export interface Task {
  /** "trim", "trimming", "drehen". */
  verb: string;
  ing: string;
  de?: string;
  /** Words of the task, as a voice and as a text says them. */
  words: readonly (readonly [en: string, de?: string])[];
}

const task = (verb: string, ing: string, words: string, de?: string, german?: string): Task => {
  const other = german?.split(', ');
  return {
    verb,
    ing,
    ...(de && { de }),
    words: words.split(', ').map((en, i) => (other?.[i] ? [en, other[i]] : [en]))
  };
};
const pairs = (text: string): (readonly [string, string?])[] =>
  text.split(', ').map((word) => {
    const [en = '', de] = word.split('=');
    return de ? [en, de] : [en];
  });

const pottery: Craft = {
  name: 'pottery',
  things: pairs(
    'bowl, mug, teapot, vase, plate, jug, lidded jar, bottle, planter, pitcher, butter dish, oil lamp'
  ),
  tasks: [
    task(
      'centre',
      'centring',
      'wobble, elbows on the thighs, cone up, wet hands, slow wheel, pressure from the side'
    ),
    task(
      'trim',
      'trimming',
      'foot ring, leather hard, tap it central, ribbon of clay, wooden tool, weight of the base'
    ),
    task(
      'glaze',
      'glazing',
      'celadon, wax on the foot, dipping tongs, runs at the rim, test tile, second coat'
    ),
    task(
      'fire',
      'firing',
      'cone six, kiln shelf, slow cooling, pyrometer, cracked lid, bisque temperature'
    ),
    task(
      'handle',
      'pulling a handle for',
      'wet strap, thumb rest, score and slip, drooping curve, coil of clay, balance when full'
    ),
    task(
      'repair',
      'repairing',
      'epoxy, hairline crack, gold powder, sanding block, missing chip, patience overnight'
    ),
    task(
      'decorate',
      'decorating',
      'slip trailer, sgraffito, cobalt brush, paper stencil, banding wheel, burnished surface'
    ),
    task(
      'price',
      'pricing',
      'market stall, hours counted, shelf price, seconds bin, wholesale order, what a stranger pays'
    )
  ],
  people: ['Orsolya', 'Bram Tilling', 'Mister Hask', 'Ludmila Perrin', 'old Weatherby'],
  towns: ['Gullsea', 'Harrow Mill', 'Penfoot', 'Long Anstey', 'Brackwater'],
  units: pairs('grams, centimetres, minutes, degrees, days, pounds'),
  thanks: 'Thank you for watching. The tools list and the mailing list are on my page.'
};

const bread: Craft = {
  name: 'bread',
  things: pairs(
    'rye loaf, baguette, focaccia, brioche, pretzel, flatbread, cinnamon knot, wholemeal tin loaf, ciabatta, seeded roll, panettone, crispbread'
  ),
  tasks: [
    task(
      'shape',
      'shaping',
      'tight skin, bench scraper, flour lightly, seam below, rest it covered, linen cloth'
    ),
    task(
      'proof',
      'proving',
      'finger poke, fridge overnight, warm cupboard, doubled dough, sour smell, patience'
    ),
    task(
      'bake',
      'baking',
      'steam tray, cast iron pot, oven spring, blistered crust, hollow knock, stone'
    ),
    task(
      'feed a starter for',
      'feeding a starter for',
      'glass jar, float test, discard, equal weights, acetone smell, bubbles'
    ),
    task(
      'score',
      'scoring',
      'razor blade, shallow angle, ear, quick wrist, pattern, flour stencil'
    ),
    task(
      'freeze',
      'freezing',
      'sliced first, damp towel, reheat, freezer burn, paper bag, toaster'
    ),
    task(
      'knead',
      'kneading',
      'window pane, slap and fold, autolyse, sticky hands, salt late, wet dough'
    ),
    task(
      'rescue',
      'rescuing',
      'dense crumb, burnt base, collapsed top, croutons, second chance, what went wrong'
    )
  ],
  people: ['Granny Osk', 'Tomasz Vell', 'Ines', 'the miller Corrie', 'Duncan Farrow'],
  towns: ['Mossgate', 'Tarnhead', 'Saint Ebba', 'Crookside', 'Vellamy'],
  units: pairs('grams, percent, hours, degrees, minutes, spoons'),
  thanks: 'If this helped, subscribe. Recipes in weights are on the website.'
};

const bikes: Craft = {
  name: 'bikes',
  things: pairs(
    'rear hub=Hinterradnabe, bottom bracket=Tretlager, headset=Steuersatz, disc brake=Scheibenbremse, chain=Kette, derailleur=Schaltwerk, spoke=Speiche, tubeless tyre=Schlauchlosreifen, saddle=Sattel, dynamo light=Dynamolicht, carrier rack=Gepäckträger, shifter cable=Schaltzug'
  ),
  tasks: [
    task(
      'adjust',
      'adjusting',
      'quarter turn, barrel adjuster, play in the bearing, feel for it, torque wrench, test ride',
      'einstellen',
      'Viertelumdrehung, Stellschraube, Spiel im Lager, nachfühlen, Drehmomentschlüssel, Probefahrt'
    ),
    task(
      'replace',
      'replacing',
      'old grease, pressed cup, puller, wear gauge, right size, box of spares',
      'austauschen',
      'altes Fett, eingepresste Schale, Abzieher, Verschleißlehre, richtige Größe, Ersatzteilkiste'
    ),
    task(
      'clean',
      'cleaning',
      'degreaser, toothbrush, rinse gently, dry rag, wax bath, shiny plates',
      'reinigen',
      'Entfetter, Zahnbürste, sanft spülen, trockener Lappen, Wachsbad, glänzende Laschen'
    ),
    task(
      'silence',
      'silencing',
      'creak, click under load, carbon paste, loose bolt, listen closely, swap one part',
      'leise bekommen',
      'Knarzen, Klicken unter Last, Montagepaste, lose Schraube, genau hinhören, ein Teil tauschen'
    ),
    task(
      'choose',
      'choosing',
      'budget, weight on the scale, compatibility, second hand, standards, what lasts',
      'auswählen',
      'Budget, Gewicht auf der Waage, Kompatibilität, gebraucht, Normen, was lange hält'
    ),
    task(
      'test',
      'testing',
      'winter salt, long hill, mud, rain, six months later, verdict',
      'im Test',
      'Wintersalz, langer Anstieg, Schlamm, Regen, sechs Monate später, Urteil'
    )
  ],
  people: ['Matteo', 'Frieda Kolb', 'Uncle Jory', 'Hanneke Brink', 'Sunil'],
  towns: ['Aldersbach', 'Wick Ferry', 'Kaltenried', 'Morvah Hill', 'Oststrand'],
  units: pairs(
    'millimetres=Millimeter, newton metres=Newtonmeter, grams=Gramm, kilometres=Kilometer, euros=Euro, minutes=Minuten'
  ),
  thanks: 'Ride safely. Parts and sizes are listed at the workshop page.'
};

const garden: Craft = {
  name: 'garden',
  things: pairs(
    'tomatoes, leeks, potatoes, broad beans, strawberries, apple tree, compost heap, raised bed, squash, garlic, rhubarb, sweet peas'
  ),
  tasks: [
    task(
      'sow',
      'sowing',
      'seed tray, bottom heat, thin them out, dated labels, sieved compost, windowsill'
    ),
    task(
      'prune',
      'pruning',
      'outward bud, clean cut, water shoots, sharp secateurs, open centre, dead wood'
    ),
    task(
      'feed',
      'feeding',
      'nettle brew, well rotted manure, yellow leaves, comfrey, weekly can, mulch'
    ),
    task('protect', 'protecting', 'slugs, fleece, pigeon net, late frost, copper tape, ladybirds'),
    task('store', 'storing', 'dry shed, plaited bunches, crate of sand, no bruises, mice, airing'),
    task(
      'move',
      'moving',
      'root ball, dull day, bucket of water, bigger hole, staking, sulks for weeks'
    ),
    task(
      'taste',
      'tasting',
      'old variety, sugar, sharp skin, blind test, chutney, neighbours vote'
    ),
    task(
      'start over with',
      'starting over with',
      'blight, dug out, burnt leaves, new ground, lesson learned, spare seed'
    )
  ],
  people: ['Perpetua', 'Mr Oakshott', 'young Dafydd', 'the Lumley sisters', 'Agnes Thorne'],
  towns: ['Upper Wend', 'Stonelea', 'Barrow Green', 'Kingsholt', 'Dunmarrow'],
  units: pairs('centimetres, weeks, litres, kilos, seeds, degrees'),
  thanks: 'Happy growing. Plot plans can be printed from my notebook.'
};

const lutes: Craft = {
  name: 'lutes',
  things: pairs(
    'soundboard, neck, rosette, bridge, pegbox, fretboard, bowl back, nut, set of strings, purfling, bracing, tuning peg'
  ),
  tasks: [
    task(
      'carve',
      'carving',
      'gouge, against the grain, template, raking light, scraper, even thickness'
    ),
    task(
      'glue',
      'gluing',
      'hide glue, spool clamps, open time, warm room, squeeze out, starved joint'
    ),
    task('fit', 'fitting', 'chalk, high spot, snug, hairline gap, tapered reamer, file strokes'),
    task('varnish', 'varnishing', 'spirit, rubbing pad, runs, dust free, amber tone, pumice'),
    task(
      'inlay',
      'inlaying',
      'knife lines, router base, mother of pearl, hot sand shading, flush, dark filler'
    ),
    task(
      'measure',
      'measuring',
      'callipers, string length, logbook, humidity, tap tone, spreadsheet'
    ),
    task(
      'restore',
      'restoring',
      'old crack, cleats, worm holes, previous repair, owner story, reversible'
    ),
    task(
      'hear',
      'hearing',
      'sustain, wolf note, gut against nylon, blind listening, brightness, room'
    )
  ],
  people: ['Maestro Bellacorte', 'Wilma Strand', 'the apprentice Kit', 'Yusuf Adair', 'Clementine'],
  towns: ['Fiddler Row', 'Castelmor', 'Nether Quay', 'Ravensmere', 'Old Tollgate'],
  units: pairs('millimetres, hertz, hours, cents, grams, coats'),
  thanks: 'Plans are drawn at full size and free. Questions below, please.'
};

const stars: Craft = {
  name: 'stars',
  things: pairs(
    'Saturn=Saturn, the Moon=Mond, double stars=Doppelsterne, the Orion nebula=Orionnebel, star clusters=Sternhaufen, a comet=Komet, Jupiter=Jupiter, sunspots=Sonnenflecken, galaxies=Galaxien, meteors=Meteore, Venus=Venus, the Milky Way=Milchstraße'
  ),
  tasks: [
    task(
      'sketch',
      'sketching',
      'soft pencil, red torch, averted eye, blending stump, circle on paper, ten minutes at the eyepiece',
      'zeichnen',
      'weicher Bleistift, Rotlicht, indirekt schauen, Wischer, Kreis auf Papier, zehn Minuten am Okular'
    ),
    task(
      'photograph',
      'photographing',
      'stacked frames, guiding, dark frame, exposure, phone adapter, histogram',
      'fotografieren',
      'gestapelte Bilder, Nachführung, Dunkelbild, Belichtung, Handyhalter, Histogramm'
    ),
    task(
      'find',
      'finding',
      'star hopping, finder scope, low power, chart, dew, tripod',
      'finden',
      'Sternhüpfen, Sucher, kleine Vergrößerung, Karte, Tau, Stativ'
    ),
    task(
      'show children',
      'showing children',
      'stool, short queue, biscuits, one question each, bedtime, wow',
      'Kindern zeigen',
      'Hocker, kurze Schlange, Kekse, eine Frage für jeden, Schlafenszeit, Staunen'
    ),
    task(
      'compare eyepieces on',
      'comparing eyepieces on',
      'field of view, eye relief, kidney beans, glare, price, notes',
      'mit Okularen vergleichen',
      'Gesichtsfeld, Augenabstand, Abschattung, Streulicht, Preis, Notizen'
    ),
    task(
      'measure',
      'measuring',
      'position angle, timing drift, error bars, catalogue value, seeing, repeat',
      'vermessen',
      'Positionswinkel, Drift stoppen, Fehlerbalken, Katalogwert, Luftunruhe, wiederholen'
    )
  ],
  people: ['Dr Amsel', 'Katinka Rode', 'the Thursday group', 'Ephraim Locke', 'Svenja'],
  towns: ['Hohenlicht', 'Dunkelried', 'Cold Fell', 'Sankt Alban', 'Marram Point'],
  units: pairs(
    'millimetres=Millimeter, arcseconds=Bogensekunden, minutes=Minuten, seconds=Sekunden, degrees=Grad, magnitudes=Größenklassen'
  ),
  thanks: 'Clear skies! Charts for every month are on the club site.'
};

/** For learning, and held out for judging. */
export const CRAFTS: { tuning: readonly Craft[]; heldOut: readonly Craft[] } = {
  tuning: [pottery, bread, bikes],
  heldOut: [garden, lutes, stars]
};
