import fc from 'fast-check'
import type { SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from 'yup'

type Described = SchemaFieldDescription & Partial<SchemaDescription>

/** What a slip, a script or a foreign hand may put in the place of a field. */
const ODD: unknown[] = [
  undefined,
  null,
  {},
  [],
  '',
  ' ',
  'a\r\nb',
  'NUL \0 in it',
  'half \ud83d of a pair',
  '\udc00',
  'x'.repeat(6000),
  '2026-02-31',
  '0000-01-01',
  '10000-01-01',
  '2026-02-31T10:00:00Z',
  '0000-01-01T00:00:00Z',
  '2026-01-01T25:00:00Z',
  '2026-01-01T00:00:00+99:99',
  '0x10',
  '1e400',
  0,
  -1,
  0.5,
  -0,
  2 ** 31,
  2 ** 31 - 1,
  2 ** 53,
  1e308,
  -1e308,
  true,
  [[[[[[[[[[[[[[[[[[[[1]]]]]]]]]]]]]]]]]]]],
  new Array(20_000).fill(0),
  Object.fromEntries(Array.from({ length: 6000 }, (_, i) => [`k${i}`, i])),
  JSON.parse('{"__proto__":{"id":1},"constructor":1}') as unknown,
  { 'NUL \0': 1 },
]

const param = (d: Described, name: string, key: string): unknown => d.tests?.find((t) => t.name === name)?.params?.[key]
const numberOf = (value: unknown, otherwise: number) => (typeof value === 'number' ? value : otherwise)

/** Bodies made from a schema's own description: most fields as it asks, some odd, some left out, some of its own making. */
export function bodiesOf(schema: Described, ids: string[]): fc.Arbitrary<unknown> {
  const odd = fc.constantFrom(...ODD)
  const field = (d: Described): fc.Arbitrary<unknown> =>
    fc.oneof({ weight: 24, arbitrary: asked(d) }, { weight: 1, arbitrary: odd })
  const asked = (d: Described): fc.Arbitrary<unknown> => {
    const plain = bare(d)
    return d.nullable === true ? fc.option(plain, { freq: 2 }) : plain
  }
  const bare = (d: Described): fc.Arbitrary<unknown> => {
    if (d.oneOf && d.oneOf.length > 0) return fc.constantFrom(...d.oneOf)
    switch (d.type) {
      case 'object': {
        const { fields } = d as unknown as SchemaObjectDescription
        const known = fc.record(
          Object.fromEntries(Object.entries(fields).map(([name, f]) => [name, field(f as Described)])),
        )
        const more = fc.oneof(
          { weight: 30, arbitrary: fc.constant({}) },
          { weight: 1, arbitrary: fc.constant({ more: 1 }) },
        )
        return fc.tuple(known, more).map(([a, b]) => ({ ...a, ...b }))
      }
      case 'array': {
        const { innerType } = d as unknown as { innerType?: Described }
        const least = numberOf(param(d, 'min', 'min') ?? param(d, 'length', 'length'), 0)
        const most = Math.min(numberOf(param(d, 'max', 'max') ?? param(d, 'length', 'length'), 3), least + 3)
        return fc.array(innerType ? field(innerType) : odd, { minLength: least, maxLength: Math.max(least, most) })
      }
      case 'number': {
        const [low, high] = [numberOf(param(d, 'min', 'min'), -10), numberOf(param(d, 'max', 'max'), 10)]
        const whole = d.tests?.some((t) => t.name === 'integer')
        return whole
          ? fc.integer({ min: Math.ceil(low), max: Math.min(Math.floor(high), Math.ceil(low) + 3) })
          : fc.double({ min: low, max: high, noNaN: true })
      }
      case 'boolean':
        return fc.boolean()
      case 'string':
        return words(d)
      default: {
        const most = (d.meta as { most?: number } | undefined)?.most ?? 3
        return fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: Math.min(most, 10) })
      }
    }
  }
  const words = (d: Described): fc.Arbitrary<unknown> => {
    const pattern = String(param(d, 'matches', 'regex'))
    if (pattern.includes('{8}')) return fc.oneof(fc.constantFrom(...ids), fc.uuid())
    if (pattern.includes('T\\d')) return fc.constantFrom('2026-03-01T09:30:00Z', '2026-03-01T10:30:00.5+01:00')
    if (pattern.includes('\\d{4}-')) return fc.constantFrom('2026-03-01', '2028-02-29', '')
    if (pattern.includes('\\d{1,')) return fc.constantFrom('0', '12.50', '7')
    return fc.string({ minLength: 1, maxLength: Math.min(20, numberOf(param(d, 'max', 'max'), 20)), unit: 'grapheme' })
  }
  return fc.oneof({ weight: 30, arbitrary: bare(schema) }, { weight: 1, arbitrary: odd })
}
