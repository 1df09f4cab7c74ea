import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from 'vitest'
import { CALCULATIONS } from '@treadle/reckon'
import { encodeWav } from '@treadle/core'
import { clockSound } from '../../core/test/clockSound.ts'

const ROOT = join(import.meta.dirname, '..', '..')
const folder = mkdtempSync(join(tmpdir(), 'treadle-'))
afterAll(() => rmSync(folder, { recursive: true }))

function command(name: 'reckon' | 'listen', args: string[], input?: string) {
  const done = spawnSync(process.execPath, [join(ROOT, 'scripts', `${name}.mjs`), ...args], { encoding: 'utf8', input })
  return { status: done.status, out: done.stdout, error: done.stderr }
}

const reckon = (name: string, input: unknown) => command('reckon', [name, JSON.stringify(input)])

describe('reckon', () => {
  test('lists every calculation with its inputs, outputs and units', () => {
    const { out, status } = command('reckon', [])
    expect(status).toBe(0)
    for (const c of CALCULATIONS) {
      expect(out).toContain(c.name)
      for (const name of [...Object.keys(c.fields), ...Object.keys(c.output)]) expect(out).toContain(name)
    }
  })

  test('every example that the Reckoner shows can be reckoned, and gives what it says it gives', () => {
    for (const c of CALCULATIONS) {
      const input = Object.fromEntries(
        Object.entries(c.fields).flatMap(([name, f]) => (f.example === undefined ? [] : [[name, f.example]])),
      )
      expect(Object.keys(c.reckon(input))).toEqual(expect.arrayContaining(Object.keys(c.output)))
    }
  })

  test.each([
    ['pendulum.length', { beatsPerHour: 3600 }, 'lengthMm', 993.62],
    ['pendulum.gravity', { latitudeDeg: 45 }, 'gravity', 9.8062],
    ['pendulum.circularLoss', { semiArcDeg: 2 }, 'secondsPerDay', 6.58],
    ['pendulum.nut', { rateSecondsPerDay: -9, lengthMm: 994, pitchMm: 0.8 }, 'turns', 0.259],
    ['beat.offset', { rightToLeftMs: 465.16, leftToRightMs: 534.84, semiArcDeg: 5, releaseDeg: 2 }, 'offsetDeg', 0.5],
    ['beat.remedy', { offsetDeg: 0.5, footSpacingMm: 300 }, 'packMm', 2.618],
    ['beat.twoReadings', { firstMs: 48, secondMs: 35, changeMm: 0.4 }, 'fromNowMm', 1.077],
    ['train.beats', { wheels: [64, 60], pinions: [8, 8], escapeTeeth: 30 }, 'beatsPerHour', 3600],
    [
      'spring.energy',
      { widthMm: 19, thicknessMm: 0.4, lengthMm: 1708, barrelInsideMm: 44, arborMm: 14 },
      'turnsAvailable',
      9.124,
    ],
    // By hand: wound 1248.5 N·mm; 205 000 · 19 · 0.4³/12 · 2π / 1708 = 76.42 a turn, 4.124 turns given out.
    [
      'spring.energy',
      { widthMm: 19, thicknessMm: 0.4, lengthMm: 1708, barrelInsideMm: 44, arborMm: 14, turns: 5 },
      'torqueNmm',
      933.31,
    ],
    ['train.duration', { greatWheelTeeth: 96, centrePinionLeaves: 8, turns: 16 }, 'days', 8],
    ['train.motion', { cannonPinion: 12, minuteWheel: 36, minutePinion: 10, hourWheel: 40 }, 'ratio', 12],
    ['drive.margin', { fittedKg: 4, leastKg: 3 }, 'marginPercent', 25],
  ])('%s', (name, input, field, value) => {
    const { out, status } = reckon(name, input)
    expect(status).toBe(0)
    expect((JSON.parse(out) as Record<string, number>)[field]).toBeCloseTo(value, 2)
  })

  test('a lost wheel, the directions, the baths and a total come as lists and strings', () => {
    const answer = (name: string, input: unknown) => JSON.parse(reckon(name, input).out) as Record<string, unknown>
    const { candidates } = answer('train.missing', {
      wheels: [64, null],
      pinions: [8, null],
      escapeTeeth: 30,
      beatsPerHour: 3600,
    }) as { candidates: { wheels: number[]; pinions: number[]; offPercent: number }[] }
    expect(candidates[0]).toMatchObject({ wheels: [64, 60], pinions: [8, 8], offPercent: 0 })
    expect(answer('train.directions', { meshes: 2, first: 'clockwise' })).toEqual({
      turns: ['clockwise', 'anticlockwise', 'clockwise'],
    })
    const parts = [
      { name: 'dial', material: 'paper' },
      { name: 'plates', material: 'brass' },
    ]
    expect(answer('bath.check', { bath: 'ammoniated', parts })).toMatchObject({
      keepOut: [{ name: 'dial' }],
      minutes: 8,
    })
    expect(answer('estimate.total', { lines: [{ quantity: 3, unitPrice: '14.35' }], taxPercent: '21' })).toEqual({
      net: '43.05',
      tax: '9.04',
      gross: '52.09',
    })
  })

  test('what is wrong with it: probabilities sum to one, and nothing known gives the shares', () => {
    const causes = (observations: object) =>
      (
        JSON.parse(reckon('trouble.next', { observations }).out) as {
          causes: { cause: string; probability: number }[]
          checks: { check: string; minutes: number; tells: number }[]
        }
      ).causes
    const unknown = causes({ movedLately: 'unknown', evenBeat: 'unknown' })
    expect(unknown.reduce((s, c) => s + c.probability, 0)).toBeCloseTo(1, 9)
    // The table gives the beat 18 of 102.
    expect(unknown[0]).toMatchObject({ cause: 'beat-out' })
    expect(unknown[0]?.probability).toBeCloseTo(18 / 102, 3)
    expect(causes({ stopsAtMoonChange: 'yes' })[0]?.cause).toBe('moon-calendar')
  })

  test('takes its input from standard input too', () => {
    expect(JSON.parse(command('reckon', ['pendulum.length', '-'], '{"beatsPerHour":7200}').out)).toHaveProperty(
      'lengthMm',
    )
  })

  const bad: [string, string, RegExp][] = [
    ['pendulum.length', '{"beatsPerHour":"fast"}', /beatsPerHour is "fast": it must be a number/],
    ['pendulum.length', '{}', /beatsPerHour is missing: it is required/],
    ['pendulum.length', '{"beatsPerHour":-5}', /beatsPerHour is -5: it must be a number from/],
    ['pendulum.length', '{"beatsPerHour":3600,"colour":1}', /colour is 1: it is not a field here/],
    ['pendulum.length', '[1]', /input is \[1\]: it must be a JSON object/],
    ['pendulum.length', '{"beats', /it must be valid JSON/],
    ['pendulum.weight', '{}', /NAME is pendulum.weight: it must be one of/],
    [
      'beat.offset',
      '{"rightToLeftMs":465,"leftToRightMs":535,"semiArcDeg":2,"releaseDeg":5}',
      /releaseDeg is 5: .*semiArcDeg \(2\)/,
    ],
    [
      'bushing.plan',
      '{"longAxisMm":1.1,"shortAxisMm":1.3,"pivotMm":1,"plateMm":2,"role":"other","cutters":[2]}',
      /shortAxisMm is 1.3/,
    ],
    [
      'bushing.plan',
      '{"longAxisMm":1.3,"shortAxisMm":1.1,"pivotMm":1,"plateMm":2,"role":"wheel","cutters":[2]}',
      /role is "wheel": it must be one of/,
    ],
    ['rate.book', '{"readings":[{"at":"yesterday","errorSeconds":1}]}', /readings\[0\].at is "yesterday"/],
    ['rate.book', '{"readings":[]}', /readings is/],
    ['train.beats', '{"wheels":[64],"pinions":[8,8],"escapeTeeth":30}', /pinions is \[8,8\]/],
  ]
  test.each(bad)('%s %s exits 2 with one line', (name, json, line) => {
    const { status, error, out } = command('reckon', [name, json])
    expect(status).toBe(2)
    expect(out).toBe('')
    expect(error).toMatch(line)
    expect(error.trimEnd()).not.toContain('\n')
  })
})

describe('listen', () => {
  const path = (name: string, bytes: Uint8Array | string) => {
    const file = join(folder, name)
    writeFileSync(file, bytes)
    return file
  }

  test('prints one JSON object with every figure', () => {
    const sound = clockSound({
      beatsPerHour: 9000,
      rateSecondsPerDay: 20,
      unevenMs: 6,
      seed: 40,
      bent: { teeth: 33, late: { 7: 4 } },
    })
    const { out, status } = command('listen', [
      path('clock.wav', encodeWav(sound.samples, sound.sampleRate)),
      '--teeth',
      '33',
      '--ppm',
      '0',
    ])
    expect(status).toBe(0)
    const heard = JSON.parse(out) as Record<string, number | unknown[]>
    for (const name of [
      'beatsPerHour',
      'nominalBeatsPerHour',
      'rateSecondsPerDay',
      'rateStandardError',
      'splitPercent',
      'outOfBeatMs',
      'outOfBeatStandardError',
      'intervalsMs',
      'beatsHeard',
      'beatsExpected',
      'rejected',
      'slips',
      'scatterMs',
      'teeth',
      'confidence',
      'secondsAnalysed',
      'analysisSeconds',
    ])
      expect(heard).toHaveProperty(name)
    expect(heard.nominalBeatsPerHour).toBe(9000)
    expect(Math.abs(Number(heard.rateSecondsPerDay) - 20)).toBeLessThan(0.6)
    expect(heard.teeth).toHaveLength(66)
  })

  test('the given count of beats is what the rate is reckoned against', () => {
    const sound = clockSound({ beatsPerHour: 7200, seconds: 20, seed: 41 })
    const { out } = command('listen', [path('given.wav', encodeWav(sound.samples, sound.sampleRate)), '--bph', '7210'])
    expect((JSON.parse(out) as { rateSecondsPerDay: number }).rateSecondsPerDay).toBeCloseTo(
      86_400 * (7200 / 7210 - 1),
      0,
    )
  })

  test('a file cut short is used, and that is said', () => {
    const sound = clockSound({ seconds: 20, seed: 42 })
    const whole = encodeWav(sound.samples, sound.sampleRate)
    const { out, status, error } = command('listen', [path('short.wav', whole.slice(0, whole.length / 2))])
    expect(status).toBe(0)
    expect((JSON.parse(out) as { remark: string }).remark).toMatch(/cut short/)
    expect(error).toMatch(/cut short/)
  })

  test('what holds no clock exits 2 with one clear line', () => {
    const noise = clockSound({ loudness: [0, 0], noise: 0.1, seconds: 8 })
    const two = clockSound({ seconds: 2 })
    const bad: [string[], RegExp][] = [
      [[path('noise.wav', encodeWav(noise.samples, noise.sampleRate))], /No clock was heard/],
      [[path('two.wav', encodeWav(two.samples, two.sampleRate))], /2\.0 s long/],
      [[path('quiet.wav', encodeWav(new Float32Array(480_000), 48_000))], /silence/],
      [[path('empty.wav', '')], /The file is empty/],
      [[path('text.wav', 'Dear Sir, the clock')], /not a WAV file/],
      [[path('broken.wav', encodeWav(two.samples, two.sampleRate).slice(0, 30))], /broken|no sound/],
      [[join(folder, 'nowhere.wav')], /there is no such file/],
      [[], /FILE is missing/],
      [['x.wav', '--teeth', '2.5'], /--teeth is 2.5/],
      [['x.wav', '--bph', 'fast'], /--bph is fast/],
      [['x.wav', '--loud'], /--loud/],
    ]
    for (const [args, line] of bad) {
      const { status, error, out } = command('listen', args)
      expect(error).toMatch(line)
      expect([status, out]).toEqual([2, ''])
      expect(error.trimEnd()).not.toContain('\n')
    }
  })
})

test('the documents name only files and folders that are there', () => {
  for (const name of ['README.md', 'CONTRIBUTING.md', 'docs/ARCHITECTURE.md', 'docs/RECKONING.md']) {
    const text = readFileSync(join(ROOT, name), 'utf8')
    const paths = [...text.matchAll(/`((?:core|contract|server|web|demo|e2e|scripts|docs)\/[\w./-]+)`/g)].map((m) =>
      join(ROOT, m[1]!),
    )
    const links = [...text.matchAll(/\]\((?!http)([^)]+)\)/g)].map((m) => join(ROOT, name, '..', m[1]!))
    expect([...paths, ...links].filter((path) => !existsSync(path))).toEqual([])
  }
})
