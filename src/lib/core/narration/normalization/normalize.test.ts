import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { normalizeForSpeech } from './normalize.ts';

const english: [written: string, spoken: string][] = [
  // Prices
  ['It costs £12.50 a cone.', 'It costs twelve pounds fifty a cone.'],
  ['A bobbin is $0.99, a shuttle $1.', 'A bobbin is ninety-nine cents, a shuttle one dollar.'],
  ['We paid €1,200 for it.', 'We paid one thousand two hundred euros for it.'],
  ['Looms for $2k–5k', 'Looms for two to five thousand dollars'],
  ['It sold for $1.5 million.', 'It sold for one point five million dollars.'],
  ['Yarn at £8–12 a cone', 'Yarn at eight to twelve pounds a cone'],
  ['£3.05 and 40p', 'three pounds and five pence and forty pence'],
  ['about 25 € each', 'about twenty-five euros each'],
  // Ranges
  ['Leave 10–12 cm at each end.', 'Leave ten to twelve centimetres at each end.'],
  ['Take 2-3 turns.', 'Take two to three turns.'],
  ['See pp. 14-16.', 'See pages fourteen to sixteen.'],
  [
    'From 1914–18 the mill stood still.',
    'From nineteen fourteen to nineteen eighteen the mill stood still.'
  ],
  // Dates and years
  ['We open on 12 March 2026.', 'We open on the twelfth of March twenty twenty-six.'],
  ['On March 3, 2025 we closed.', 'On March third, twenty twenty-five we closed.'],
  ['Posted 2026-11-05.', 'Posted the fifth of November twenty twenty-six.'],
  ['Built in 1905.', 'Built in nineteen oh five.'],
  ['since 2008', 'since two thousand and eight'],
  ['a shawl of the 1920s', 'a shawl of the nineteen twenties'],
  ['By 25/12/2025 it was done.', 'By the twenty-fifth of December twenty twenty-five it was done.'],
  ['In May 2024 we moved.', 'In May twenty twenty-four we moved.'],
  ['a warp of 1905 ends', 'a warp of one thousand nine hundred and five ends'],
  // Times
  ['Doors at 9:30 am, talk at 14:05.', 'Doors at nine thirty a m, talk at fourteen oh five.'],
  ['It took 1:02:30.', 'It took one hour two minutes thirty seconds.'],
  ['Tea at 4 p.m. sharp', 'Tea at four p m sharp'],
  // Versions
  ['Drafted with v2.10.1 of it.', 'Drafted with version two point ten point one of it.'],
  ['Version 3.0 is out.', 'version three point zero is out.'],
  // Fractions
  ['Cut 1½ yards.', 'Cut one and a half yards.'],
  ['Use ¾ cup.', 'Use three quarters cup.'],
  ['Fill it 2/3 full.', 'Fill it two thirds full.'],
  ['It shrinks by 1/8.', 'It shrinks by one eighth.'],
  ['Add 2 1/4 in to the hem', 'Add two and a quarter in to the hem'],
  // Thread counts and the like
  ['Cotton 8/2 at 24 epi', 'Cotton eight two at twenty-four ends per inch'],
  ['A 2/2 twill on a 4-shaft loom', 'A two two twill on a four shaft loom'],
  ['A 1/3 twill', 'A one three twill'],
  ['20/2 silk, 12 ppi', 'twenty two silk, twelve picks per inch'],
  // Units, sizes, signs
  ['A towel of 50 x 70 cm', 'A towel of fifty by seventy centimetres'],
  ['1 cm or 2.5 cm', 'one centimetre or two point five centimetres'],
  ['At 40 °C, never −5 °C', 'At forty degrees Celsius, never minus five degrees Celsius'],
  ['It shrinks 8%.', 'It shrinks eight percent.'],
  ['Mix it 1:20.', 'Mix it one to twenty.'],
  ['3x as strong', 'three times as strong'],
  ['warp & weft', 'warp and weft'],
  ['the warp/weft ratio', 'the warp or weft ratio'],
  ['No. 5 and #3', 'number five and number three'],
  ['the 1st, 2nd and 23rd dent', 'the first, second and twenty-third dent'],
  [
    '1,234,567 picks',
    'one million two hundred and thirty-four thousand five hundred and sixty-seven picks'
  ],
  // Abbreviations, initials, addresses
  [
    'Soft yarns, e.g. wool, approx. 8 m',
    'Soft yarns, for example wool, approximately eight metres'
  ],
  ['The DIY frame and the NASA loom', 'The D I Y frame and the nasa loom'],
  ['By J.R. Lune', 'By J R Lune'],
  ['See https://wrenfold.example/looms/?a=1.', 'See wrenfold dot example slash looms.'],
  ['Write to hello@wrenfold.example', 'Write to hello at wrenfold dot example'],
  ['Call +44 20 7946 0123', 'Call plus four four, two oh, seven nine four six, oh one two three'],
  ['Part IV of it', 'Part four of it'],
  // Marks
  ['The reed (12 dents) – “the comb” – holds it…', 'The reed, twelve dents, the comb, holds it.'],
  ['Nice 🧵 work!', 'Nice work!'],
  ['#weaving is slow', 'weaving is slow']
];

const german: [written: string, spoken: string][] = [
  ['Das kostet 12,50 €.', 'Das kostet zwölf Euro fünfzig.'],
  ['Am 3. März 2026 geht es los.', 'Am dritten März zweitausendsechsundzwanzig geht es los.'],
  ['Seit 1905 weben wir.', 'Seit neunzehnhundertfünf weben wir.'],
  ['Etwa 10–12 cm breit', 'Etwa zehn bis zwölf Zentimeter breit'],
  ['Um 9:30 Uhr', 'Um neun Uhr dreißig'],
  ['1 cm, z. B. 2,5 cm', 'ein Zentimeter, zum Beispiel zwei Komma fünf Zentimeter'],
  ['1½ Meter', 'eineinhalb Meter'],
  ['2/3 der Kette', 'zwei Drittel der Kette'],
  ['Baumwolle 8/2', 'Baumwolle acht zwei'],
  ['1.234 Fäden', 'eintausendzweihundertvierunddreißig Fäden'],
  ['50 x 70 cm', 'fünfzig mal siebzig Zentimeter'],
  ['30 °C & 5 %', 'dreißig Grad Celsius und fünf Prozent'],
  ['Nr. 5 usw.', 'Nummer fünf und so weiter.'],
  ['beim 2. Mal', 'beim zweiten Mal'],
  ['ca. 1 Min. warten', 'zirka eine Minute warten'],
  ['der 4-schäftige Webstuhl', 'der vierschäftige Webstuhl']
];

for (const [code, examples] of [
  ['en', english],
  ['de', german]
] as const) {
  for (const [written, spoken] of examples) {
    test(`${code}: ${written}`, () => assert.equal(normalizeForSpeech(written, code), spoken));
  }
}

test('the words of the user win over the rules', () => {
  const own = [
    { written: 'Ashwick 8/2', said: 'ash-ick number eight' },
    { written: 'DIY', said: 'do it yourself' }
  ];
  assert.equal(
    normalizeForSpeech('A DIY warp of ashwick 8/2.', 'en', own),
    'A do it yourself warp of ash-ick number eight.'
  );
});

test('a language without rules keeps its numbers for its engine', () => {
  assert.equal(normalizeForSpeech('Il y a 12 fils « fins ».', 'fr'), 'Il y a 12 fils fins.');
});

test('whatever is written, no digit is left, and every plain word is still said in its order', () => {
  const piece = fc.constantFrom(
    ...[
      'warp',
      'the',
      'Kettbaum',
      '12',
      '3.5',
      '1,000',
      '£4',
      '8/2',
      '½',
      '10–12 cm',
      '(',
      ')',
      '“'
    ],
    ...[
      '2026',
      'e.g.',
      '3rd',
      'v1.2',
      '#',
      '%',
      '-',
      '—',
      '.',
      ',',
      '7 °C',
      '1:20',
      '🧵',
      '"',
      '0'
    ],
    ...['12.03.2026', '+', '99999999999999999999', '12:61', '1.2.3.4', '5 €', '\u00a0', '١٢']
  );
  fc.assert(
    fc.property(fc.constantFrom('en', 'de'), fc.array(piece, { maxLength: 12 }), (code, pieces) => {
      const spoken = normalizeForSpeech(pieces.join(' '), code);
      assert.doesNotMatch(spoken, /[0-9]/);
      const plain: string[] = pieces.filter((p) => /^(?:warp|the|Kettbaum)$/.test(p));
      const said: string[] = spoken.match(/\b(?:warp|the|Kettbaum)\b/g) ?? [];
      let at = -1;
      for (const word of plain) {
        at = said.indexOf(word, at + 1);
        assert.ok(at >= 0, `${word} is not said in “${spoken}”`);
      }
    }),
    { numRuns: 400 }
  );
});
