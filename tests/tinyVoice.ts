/** A voice in ONNX form made here: every phoneme is a short sound of its own, by chance. It says nothing anybody would know. */

const RATE = 22_050;
/** Samples of one phoneme. */
export const SAMPLES = 1100;
const PHONEMES = [...'_^$ .,;:!?aeiouæɑɔəɛɜɪʊʌɐyøœɯbcdfghjklmnpqrstvwxzçðŋɡɹɾʃʒθˈˌːʔβʁɲ'];

/** Numbers of seven bits, the last without the eighth. */
function varint(value: number): number[] {
  const bytes: number[] = [];
  for (; value > 127; value = Math.floor(value / 128)) bytes.push((value % 128) | 128);
  return [...bytes, value];
}
/** Fields of protocol buffers: whole numbers, and bytes. */
const number = (field: number, value: number): number[] => [...varint(field * 8), ...varint(value)];
const bytes = (field: number, value: ArrayLike<number>): number[] => [
  ...varint(field * 8 + 2),
  ...varint(value.length),
  ...Array.from(value)
];
const text = (field: number, value: string): number[] =>
  bytes(field, new TextEncoder().encode(value));

const [FLOAT, INT64] = [1, 7];

const tensor = (name: string, type: number, dims: number[], raw: ArrayBufferLike): number[] => [
  ...dims.flatMap((d) => number(1, d)),
  ...number(2, type),
  ...text(8, name),
  ...bytes(9, new Uint8Array(raw))
];
const node = (op: string, inputs: string[], output: string, attributes: number[][] = []) =>
  bytes(1, [
    ...inputs.flatMap((i) => text(1, i)),
    ...text(2, output),
    ...text(4, op),
    ...attributes.flatMap((a) => bytes(5, a))
  ]);
const textAttribute = (name: string, value: string) => [
  ...text(1, name),
  ...text(4, value),
  ...number(20, 3)
];
const value = (name: string, type: number, dims: (number | string)[]) => [
  ...text(1, name),
  ...bytes(
    2,
    bytes(1, [
      ...number(1, type),
      ...bytes(
        2,
        dims.flatMap((d) => bytes(1, typeof d === 'number' ? number(1, d) : text(2, d)))
      )
    ])
  )
];

function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** The sound of each phoneme: three tones of random pitch. */
function sounds(): Float32Array {
  const random = chance(11);
  const table = new Float32Array(PHONEMES.length * SAMPLES);
  for (let p = 0; p < PHONEMES.length; p++) {
    const tones = Array.from({ length: 3 }, () => 120 + 2400 * random());
    for (let i = 0; i < SAMPLES; i++)
      table[p * SAMPLES + i] =
        tones.reduce((sum, hertz) => sum + Math.sin((2 * Math.PI * hertz * i) / RATE), 0) / 6;
  }
  return table;
}

/** The network: sounds looked up by phoneme, in a row, made longer by the second of its scales. */
export function tinyModel(): Uint8Array<ArrayBuffer> {
  const long = (...values: number[]) => BigInt64Array.from(values, BigInt).buffer;
  const graph = [
    ...node('Gather', ['sounds', 'input'], 'looked'),
    ...node('Reshape', ['looked', 'row'], 'rows'),
    ...node('Slice', ['scales', 'one', 'two'], 'longer'),
    ...node('Concat', ['same', 'longer'], 'factors', [
      [...text(1, 'axis'), ...number(3, 0), ...number(20, 2)]
    ]),
    ...node('Resize', ['rows', '', 'factors'], 'output', [textAttribute('mode', 'linear')]),
    ...text(2, 'tiny'),
    ...bytes(5, tensor('sounds', FLOAT, [PHONEMES.length, SAMPLES], sounds().buffer)),
    ...bytes(5, tensor('row', INT64, [4], long(1, 1, 1, -1))),
    ...bytes(5, tensor('one', INT64, [1], long(1))),
    ...bytes(5, tensor('two', INT64, [1], long(2))),
    ...bytes(5, tensor('same', FLOAT, [3], Float32Array.of(1, 1, 1).buffer)),
    ...bytes(11, value('input', INT64, ['batch', 'phonemes'])),
    ...bytes(11, value('input_lengths', INT64, ['batch'])),
    ...bytes(11, value('scales', FLOAT, [3])),
    ...bytes(12, value('output', FLOAT, ['batch', 1, 1, 'time']))
  ];
  return Uint8Array.from([...number(1, 8), ...bytes(7, graph), ...bytes(8, number(2, 13))]);
}

/** Its settings, as the JSON file beside it has them. */
export const tinySettings = {
  audio: { sample_rate: RATE },
  espeak: { voice: 'en-us' },
  inference: { noise_scale: 0.667, length_scale: 1, noise_w: 0.8 },
  phoneme_type: 'espeak',
  phoneme_id_map: Object.fromEntries(PHONEMES.map((p, id) => [p, [id]])),
  num_speakers: 1,
  language: { code: 'en_US', family: 'en' }
};
