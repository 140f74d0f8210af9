import fc, { type Arbitrary } from 'fast-check';
import type { z } from 'zod';

type Def = Record<string, unknown> & { type: string };
interface Check {
  check: string;
  value?: number;
  inclusive?: boolean;
  minimum?: number;
  maximum?: number;
  pattern?: RegExp;
}
const checksOf = ({ checks }: Def): Check[] =>
  ((checks ?? []) as { _zod: { def: Check } }[]).map((check) => check._zod.def);
const lengthOf = (checks: readonly Check[], most: number) => ({
  minLength: checks.find((c) => c.check === 'min_length')?.minimum ?? 0,
  maxLength: checks.find((c) => c.check === 'max_length')?.maximum ?? most
});

function stringOf(def: Def): Arbitrary<string> {
  if (def.format === 'datetime')
    return fc.date({ noInvalidDate: true }).map((d) => d.toISOString());
  if (def.format === 'date') {
    // Years of four digits, as the form has them.
    const [min, max] = [new Date('0001-01-01'), new Date('9999-12-31')];
    return fc.date({ noInvalidDate: true, min, max }).map((d) => d.toISOString().slice(0, 10));
  }
  const checks = checksOf(def);
  const pattern = checks.find((c) => c.pattern)?.pattern;
  if (pattern) return fc.stringMatching(new RegExp(pattern.source));
  return fc.string({ unit: 'binary', ...lengthOf(checks, 20) });
}

function numberOf(schema: z.ZodNumber, checks: readonly Check[]): Arbitrary<number> {
  const isOpen = checks.some((c) => c.check === 'greater_than' && !c.inclusive);
  const min = Math.max(schema.minValue ?? -1e6, -1e6);
  const max = Math.min(schema.maxValue ?? 1e6, 1e6);
  if (schema.isInt) return fc.integer({ min: isOpen ? min + 1 : min, max });
  // There is no negative zero in JSON.
  return fc.double({ min, max, noNaN: true, minExcluded: isOpen }).map((n) => n + 0);
}

/** Names of a record: those of a list where it has one. */
function keysOf(schema: unknown): Arbitrary<string> {
  const { def } = (schema as { _zod: { def: Def } })._zod;
  return def.type === 'enum'
    ? fc.constantFrom(...Object.values(def.entries as Record<string, string>))
    : fc.string({ maxLength: 8 });
}

/** Anything that a schema takes, as it lies in the database: all fields there, but for the optional ones. */
export function arbitraryOf(schema: z.ZodType | unknown): Arbitrary<unknown> {
  const { def } = (schema as { _zod: { def: Def } })._zod;
  const inner = () => arbitraryOf(def.innerType);
  switch (def.type) {
    case 'string':
      return stringOf(def);
    case 'number':
      return numberOf(schema as z.ZodNumber, checksOf(def));
    case 'boolean':
      return fc.boolean();
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries as object));
    case 'literal':
      return fc.constantFrom(...(def.values as unknown[]));
    case 'nullable':
      return fc.option(inner(), { nil: null });
    case 'optional':
      return fc.option(inner(), { nil: undefined });
    case 'default':
    case 'prefault':
    case 'catch':
    case 'nonoptional':
    case 'readonly':
      return inner();
    case 'lazy':
      return arbitraryOf((def.getter as () => unknown)());
    case 'pipe':
      return arbitraryOf(def.in);
    case 'array':
      return fc.array(arbitraryOf(def.element), lengthOf(checksOf(def), 3));
    case 'tuple':
      return fc.tuple(...(def.items as unknown[]).map(arbitraryOf));
    case 'union':
      return fc.oneof(...(def.options as unknown[]).map(arbitraryOf));
    case 'record':
      return fc.dictionary(keysOf(def.keyType), arbitraryOf(def.valueType), { maxKeys: 3 });
    case 'unknown':
    case 'any':
      return fc.jsonValue();
    case 'object': {
      const shape = Object.entries(def.shape as object);
      const fields = Object.fromEntries(shape.map(([name, of]) => [name, arbitraryOf(of)]));
      return fc
        .record(fields)
        .map((row) => Object.fromEntries(Object.entries(row).filter(([, v]) => v !== undefined)));
    }
    default:
      throw new Error(`There is no way to make up ${def.type}.`);
  }
}
