import { describe, expect, test } from 'vitest'
import { bathCheck, DEFAULT_BATHS, FINISHES, keepOut, MATERIALS, sortIntoBaths, type BathPart } from '../src/index.ts'

const out = (bath: string, ...parts: BathPart[]) => bathCheck(bath, parts).keepOut.map((k) => k.name)

describe('what must stay out', () => {
  // The handbook's list, each in the words a workshop would use.
  const DRY: BathPart[] = [
    { name: 'silvered dial', material: 'brass', finish: 'silvered' },
    { name: 'painted dial', material: 'iron', finish: 'painted' },
    { name: 'paper dial', material: 'paper' },
    { name: 'gilt mount', material: 'brass', finish: 'gilt' },
    { name: 'glued seat', material: 'shellac or glue' },
    { name: 'bone knob', material: 'bone' },
    { name: 'ivory ring', material: 'ivory' },
    { name: 'hammer leather', material: 'leather' },
    { name: 'bellows', material: 'leather bellows' },
    { name: 'jar', material: 'mercury' },
    { name: 'escapement', material: 'platform escapement' },
    { name: 'luminous dial', material: 'luminous dial' },
  ]

  test.each(DEFAULT_BATHS.map((b) => b.key))('every tender thing stays out of the %s bath', (bath) => {
    expect(out(bath, ...DRY)).toEqual(DRY.map((d) => d.name))
    expect(bathCheck(bath, DRY).minutes).toBe(0)
  })

  test('old lacquer goes in the bath that leaves it, not in the one that strips it', () => {
    const plate: BathPart = { name: 'plate', material: 'brass', finish: 'lacquered' }
    expect(out('ammoniated', plate)).toEqual(['plate'])
    expect(out('non-ammoniated', plate)).toEqual([])
  })

  test('a mainspring is kept from water', () => {
    const spring = { name: 'spring', material: 'mainspring' }
    expect(out('ammoniated', spring)).toEqual(['spring'])
    expect(out('non-ammoniated', spring)).toEqual(['spring'])
    expect(out('spirit', spring)).toEqual([])
    expect(bathCheck('ammoniated', [spring]).keepOut[0]?.why).toMatch(/rusts/)
  })

  test('the rust bath is for steel and iron, not for brass nor for blued hands', () => {
    expect(
      out(
        'chelating',
        { name: 'arbor', material: 'steel', finish: 'rusty' },
        { name: 'plate', material: 'brass' },
        { name: 'hand', material: 'steel', finish: 'blued' },
      ),
    ).toEqual(['plate', 'hand'])
  })

  test('a finish may be said with the material', () => {
    expect(out('ammoniated', { name: 'chapter ring', material: 'silvered brass' })).toEqual(['chapter ring'])
    expect(out('ammoniated', { name: 'wheel', material: 'brass, polished' })).toEqual([])
  })

  test('what is not known stays out', () => {
    const { keepOut: kept, minutes } = bathCheck('ammoniated', [
      { name: 'knob', material: 'unobtainium' },
      { name: 'plate', material: 'brass' },
    ])
    expect(kept).toEqual([{ name: 'knob', why: 'what “unobtainium” does in it is not known here: clean it dry' }])
    expect(minutes).toBe(8)
    expect(out('ammoniated', { name: 'rim', material: 'brass', finish: 'mystery wax' })).toEqual(['rim'])
  })

  test('every reason is a sentence, for every material and finish', () => {
    for (const material of MATERIALS)
      for (const finish of FINISHES)
        for (const { kind } of DEFAULT_BATHS) {
          const why = keepOut(material, finish, kind)
          if (why !== null) expect(why.length).toBeGreaterThan(12)
        }
  })

  test('an unknown bath and a part without a name are refused', () => {
    expect(() => bathCheck('lemonade', [])).toThrow(/bath is "lemonade": it must be one of ammoniated/)
    expect(() => bathCheck('spirit', [{ name: ' ', material: 'brass' }])).toThrow(/parts\[0\].name/)
    expect(() => bathCheck('spirit', [{ name: 'plate', material: '' }])).toThrow(/parts\[0\].material/)
  })
})

describe('sorting a movement', () => {
  const parts: BathPart[] = [
    { name: 'plates', material: 'brass' },
    { name: 'lacquered cover', material: 'brass', finish: 'lacquered' },
    { name: 'mainspring', material: 'mainspring' },
    { name: 'rusty arbor', material: 'steel', finish: 'rusty' },
    { name: 'dial', material: 'brass', finish: 'silvered' },
  ]
  const names = (sorted: ReturnType<typeof sortIntoBaths<BathPart>>) =>
    Object.fromEntries(sorted.baths.map((b) => [b.bath.key, b.parts.map((p) => p.name)]))

  test('each goes where it may, the preferred bath first', () => {
    const sorted = sortIntoBaths(parts, DEFAULT_BATHS, 'ammoniated')
    expect(names(sorted)).toEqual({
      ammoniated: ['plates'],
      'non-ammoniated': ['lacquered cover'],
      spirit: ['mainspring'],
      chelating: ['rusty arbor'],
    })
    expect(sorted.dry.map((d) => d.part.name)).toEqual(['dial'])
  })

  test('nothing goes in a bath that would keep it out, and nothing is lost', () => {
    for (const preferred of DEFAULT_BATHS.map((b) => b.key)) {
      const sorted = sortIntoBaths(parts, DEFAULT_BATHS, preferred)
      for (const { bath, parts: inside } of sorted.baths) expect(bathCheck(bath.key, inside).keepOut).toEqual([])
      expect(sorted.baths.flatMap((b) => b.parts).length + sorted.dry.length).toBe(parts.length)
    }
  })
})
