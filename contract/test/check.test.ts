import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Schema, SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from 'yup'
import * as contract from '../src/index.ts'
import { mostOf } from '../src/bounds.ts'
import { array, day, line, measured, moment, numbers, only, requiredLine, ruled, string, text } from '../src/fields.ts'
import { check, keepable } from '../src/index.ts'

const isSchema = (value: unknown): value is Schema =>
  typeof value === 'object' && value !== null && '__isYupSchema__' in value
const SCHEMAS = Object.entries(contract).flatMap(([name, value]: [string, unknown]): [string, Schema][] =>
  isSchema(value) ? [[name, value]] : [],
)

/** Every part of a schema, by its path. */
function parts(d: SchemaFieldDescription, path: string): [path: string, part: SchemaFieldDescription][] {
  const inner = (d as { innerType?: SchemaFieldDescription }).innerType
  const fields = (d as SchemaObjectDescription).fields as Record<string, SchemaFieldDescription> | undefined
  return [
    [path, d],
    ...(inner ? parts(inner, `${path}[]`) : []),
    ...Object.entries(fields ?? {}).flatMap(([name, field]) => parts(field, `${path}.${name}`)),
  ]
}

describe('every schema that travels', () => {
  test('are many, so that none is forgotten here', () => expect(SCHEMAS.length).toBeGreaterThan(25))

  test.each(SCHEMAS)('%s bounds each of its lists and texts', (name, schema) => {
    // A list for the drawers came as one text, of so many lines; what is kept of it has as many.
    const most = name === 'StockImportKept' ? 8000 : 1000
    for (const [path, part] of parts(schema.describe(), name)) {
      const d = part as SchemaDescription
      if (d.type === 'array') expect(mostOf(d), path).toBeLessThanOrEqual(most)
      if (d.type === 'string') {
        const bounded = d.oneOf.length > 0 || d.tests.some((t) => t.name === 'max' || t.name === 'matches')
        expect(bounded, path).toBe(true)
      }
    }
  })

  test.each(SCHEMAS)('%s answers whatever it is given, and never stumbles over it', async (_name, schema) => {
    await fc.assert(
      fc.asyncProperty(fc.jsonValue({ noUnicodeString: false }), async (value) => {
        const checked = await check(schema, value)
        if (!checked.ok) expect(checked.errors.length).toBeGreaterThan(0)
      }),
      { numRuns: 40, seed: 3 },
    )
    // An object with no field of it: what its rules ask about is not there.
    expect((await check(schema, {})).ok).toBe(false)
  })
})

/** By the language's own judgement: what is not well formed has no way into an address. */
function isWellFormed(words: string): boolean {
  try {
    encodeURIComponent(words)
    return true
  } catch {
    return false
  }
}

describe('bounds', () => {
  const Pages = only({
    pages: array(only({ words: text(20).required() }))
      .max(3)
      .required()
      .label('Pages'),
  })

  test('a list too long is refused unread, by its label', async () => {
    let read = 0
    const flood = new Proxy(new Array(400_000).fill(0), {
      get: (target, key, self) => {
        if (key !== 'length') read++
        return Reflect.get(target, key, self) as unknown
      },
    })
    expect(await check(Pages, { pages: flood })).toEqual({
      ok: false,
      errors: [{ field: 'pages', message: 'Pages may have 3 at most; there are 400000' }],
    })
    expect(read).toBe(0)
  })

  test('nesting too deep is refused, however deep', async () => {
    let deep: unknown = 1
    for (let i = 0; i < 100_000; i++) deep = [deep]
    const checked = await check(Pages, { pages: [{ words: deep }] })
    expect(checked).toMatchObject({ ok: false, errors: [{ message: expect.stringMatching(/nested too deep/) }] })
  })

  test('characters that a database can’t keep are named by their field, in names of fields too', async () => {
    expect(await check(Pages, { pages: [{ words: 'a\0b' }] })).toMatchObject({
      ok: false,
      errors: [{ field: 'pages[0].words' }],
    })
    expect((await check(Pages, { pages: [], ['x\0']: 1 })).ok).toBe(false)
  })

  test('what is keepable is just what is well formed and without NUL', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.integer({ min: 0, max: 0xffff }).map((c) => String.fromCharCode(c)) }), (s) => {
        expect(keepable(s)).toBe(isWellFormed(s) && !s.includes('\0'))
      }),
      { numRuns: 2000, seed: 5 },
    )
  })
})

describe('fields', () => {
  test('what is of another kind is refused in words, by its label', async () => {
    const Kinds = only({
      deep: measured(0, 9).required().label('Deep'),
      name: string().defined().label('Name'),
      list: array(string().defined()).max(3).defined().label('List'),
      part: only({}).label('Part'),
    })
    const checked = await check(Kinds, { deep: NaN, name: 3, list: 'a', part: 7 })
    expect(checked.ok ? [] : checked.errors.map((e) => e.message).sort()).toEqual([
      ...['Deep must be a number', 'List must be a list', 'Name must be words', 'Part can’t be read'],
    ])
  })

  test('a rule that can’t be asked says nothing where a field is missing, and is never taken for held', async () => {
    const Two = ruled(only({ a: string().required(), b: string().required() }), [
      'longer',
      'a must be longer than b',
      ({ a, b }) => a.trim().length > b.trim().length,
    ])
    expect(await check(Two, { a: 'xx', b: 'x' })).toMatchObject({ ok: true })
    expect(await check(Two, { a: 'x', b: 'xx' })).toEqual({
      ok: false,
      errors: [{ field: '', message: 'a must be longer than b' }],
    })
    expect(await check(Two, { b: 'x' })).toEqual({
      ok: false,
      errors: [{ field: 'a', message: 'a is a required field' }],
    })
    const Broken = ruled(only({ a: string().nullable().defined() }), ['r', 'it must hold', ({ a }) => a!.length > 0])
    expect((await check(Broken, { a: null })).ok).toBe(false)
  })

  test('days and moments are those that the calendar has', async () => {
    const are = async (schema: Schema, value: string) => (await check(schema, value)).ok
    fc.assert(
      fc.property(fc.date({ min: new Date('1000-01-01'), max: new Date('8999-12-31'), noInvalidDate: true }), (d) => {
        expect(day().isValidSync(d.toISOString().slice(0, 10), { strict: true })).toBe(true)
        expect(moment().isValidSync(d.toISOString(), { strict: true })).toBe(true)
      }),
      { numRuns: 500, seed: 9 },
    )
    for (const no of [
      '2026-02-29',
      '2026-02-31',
      '2026-00-01',
      '2026-01-00',
      '2026-13-01',
      '0000-01-01',
      '10000-01-01',
    ]) {
      expect(await are(day(), no), no).toBe(false)
      expect(await are(moment(), `${no}T00:00:00Z`), no).toBe(false)
    }
    expect(await are(moment(), '2026-01-01T24:30:00Z')).toBe(false)
    expect(await are(moment(), '2026-01-01T00:00:00+99:00')).toBe(false)
  })

  test('one line is one line; many numbers are looked at in one go', async () => {
    for (const no of ['a\nb', 'a\rb', 'a\tb', 'a\u2028b', 'a\u0085b', '\u001b[31m'])
      for (const schema of [line(), requiredLine()])
        expect((await check(schema, no)).ok, JSON.stringify(no)).toBe(false)
    expect((await check(line(), 'Ågot’s 8-day “drum”')).ok).toBe(true)
    const three = numbers(-1, 1, [3, 3])
    expect((await check(three, [0, 1, -1])).ok).toBe(true)
    for (const no of [[0, 1], [0, 1, 2], [0, 1, NaN], [0, 1, '1'], [0, 1, null], 'xyz', { length: 3 }])
      expect((await check(three, no)).ok, JSON.stringify(no)).toBe(false)
  })
})
