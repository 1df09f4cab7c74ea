import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { encodeWav } from '@treadle/core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { clockSound } from '../../core/test/clockSound.ts'
import { madeFilm } from '../../core/test/madeFilm.ts'
import { strikeSound } from '../../core/test/strikeSound.ts'
import { watchSound } from '../../core/test/watchSound.ts'

const ROOT = join(import.meta.dirname, '..', '..')
const folder = mkdtempSync(join(tmpdir(), 'treadle-hearing-'))
const at = (name: string) => join(folder, name)
afterAll(() => rmSync(folder, { recursive: true }))

function command(name: 'listen' | 'strike' | 'watch' | 'swing', ...args: string[]) {
  const done = spawnSync(process.execPath, [join(ROOT, 'scripts', `${name}.mjs`), ...args], { encoding: 'utf8' })
  return { status: done.status, out: done.stdout, error: done.stderr }
}
const lines = (out: string) =>
  out
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>)

beforeAll(() => {
  writeFileSync(at('letter.wav'), 'Dear Sir')
})

describe('listen with the counts of a train', () => {
  const TRAIN = '{"wheels":[84,80],"pinions":[7,8],"escapeTeeth":30}'
  beforeAll(() => {
    const clock = { beatsPerHour: 7200, seconds: 100, sampleRate: 16_000, wobble: [{ periodS: 30, ms: 1 }] }
    const { samples, sampleRate } = clockSound(clock)
    writeFileSync(at('wobble.wav'), encodeWav(samples, sampleRate))
  })

  test('names the wheel, and tells the knocks of both sides', () => {
    const { status, out } = command('listen', at('wobble.wav'), '--train', TRAIN)
    expect(status).toBe(0)
    const answer = lines(out)[0] as { periodic: Record<string, number>[]; knocks: { ms: number; share: number }[][] }
    expect(answer.periodic).toHaveLength(1)
    expect(Object.keys(answer.periodic[0]!).sort()).toEqual(['amplitudeMs', 'arbor', 'chance', 'periodS'])
    expect(answer.periodic[0]).toMatchObject({ arbor: 2, periodS: 30 })
    expect(answer.periodic[0]!.chance).toBeLessThan(0.01)
    expect(answer.knocks).toHaveLength(2)
    for (const side of answer.knocks) expect(side.some((k) => k.ms === 0 && k.share > 0.5)).toBe(true)
  })

  test.each([
    ['{"wheels":[84,80],"pinions":[7],"escapeTeeth":30}', /pinions/],
    ['{"wheels":"84","pinions":[7],"escapeTeeth":30}', /wheels/],
    ['[84', /--train/],
    ['null', /--train/],
  ])('counts that can’t be are refused: %s', (train, why) => {
    const { status, error } = command('listen', at('wobble.wav'), '--train', train)
    expect(status).toBe(2)
    expect(error).toMatch(why)
    expect(error.trim().split('\n')).toHaveLength(1)
  })

  test('a train of another count than --bph is asked about', () => {
    const { status, error } = command('listen', at('wobble.wav'), '--bph', '3600', '--train', TRAIN)
    expect(status).toBe(2)
    expect(error).toContain('7200.0 beats an hour and --bph is 3600')
  })
})

describe('strike', () => {
  test('counts over the ticking; without a strike the list is empty', () => {
    const struck = strikeSound({ on: 'gong', blowsS: [3, 4.5, 6, 7.5], clock: { sampleRate: 24_000, seconds: 13 } })
    writeFileSync(at('four.wav'), encodeWav(struck.samples, struck.sampleRate))
    const [answer] = lines(command('strike', at('four.wav')).out) as [
      { groups: { atS: number; blows: number; intervalsS: number[] }[] },
    ]
    expect(answer.groups).toHaveLength(1)
    expect(answer.groups[0]!.blows).toBe(4)
    expect(answer.groups[0]!.atS).toBeCloseTo(3, 1)
    for (const s of answer.groups[0]!.intervalsS) expect(s).toBeCloseTo(1.5, 1)
    const clock = clockSound({ seconds: 12, sampleRate: 16_000 })
    writeFileSync(at('ticks.wav'), encodeWav(clock.samples, clock.sampleRate))
    expect(lines(command('strike', at('ticks.wav')).out)).toEqual([{ groups: [] }])
  })

  test('no file, no sound, two files: one line, and 2', () => {
    for (const args of [[], [at('none.wav')], [at('letter.wav')], [at('four.wav'), at('ticks.wav')]]) {
      const { status, error, out } = command('strike', ...args)
      expect([status, out]).toEqual([2, ''])
      expect(error.trim().split('\n')).toHaveLength(1)
    }
  })
})

describe('watch', () => {
  test('a line a minute, then the summary', () => {
    const samples = new Float32Array(12_000 * 200)
    let from = 0
    watchSound(
      { seconds: 200, sampleRate: 12_000, rateSecondsPerDay: 8, stopsAtS: 150, strikes: [{ atS: 70, blows: 3 }] },
      (block) => {
        samples.set(block, from)
        from += block.length
      },
    )
    writeFileSync(at('watch.wav'), encodeWav(samples, 12_000))
    const { status, out } = command('watch', at('watch.wav'), '--bph', '7200')
    expect(status).toBe(0)
    const told = lines(out)
    expect(told).toHaveLength(5)
    expect(Object.keys(told[0]!).sort()).toEqual([
      'beatsExpected',
      'beatsHeard',
      'fromS',
      'loudnessDb',
      'outOfBeatMs',
      'outOfBeatStandardError',
      'rateSecondsPerDay',
      'rateStandardError',
      'scatterMs',
    ])
    expect(told[0]).toMatchObject({ fromS: 0, beatsExpected: 120 })
    expect(told[3]).toMatchObject({ fromS: 180, beatsHeard: 0, rateSecondsPerDay: null, loudnessDb: null })
    const { summary } = told[4] as { summary: Record<string, unknown> }
    expect(Object.keys(summary).sort()).toEqual(['gaps', 'rateTrendSecondsPerDayPerHour', 'stoppedAtS', 'strikes'])
    expect(summary.stoppedAtS as number).toBeGreaterThan(148.9)
    expect(summary.stoppedAtS as number).toBeLessThan(150.1)
    expect(summary.gaps).toEqual([])
    expect(summary.strikes).toMatchObject([{ blows: 3 }])
  })

  test('without --bph, or with one that can’t be, it is refused', () => {
    expect(command('watch', at('watch.wav')).error).toContain('--bph is missing')
    expect(command('watch', at('watch.wav'), '--bph', 'fast').error).toContain('--bph is fast')
  })
})

describe('swing', () => {
  const film = { width: 200, height: 160, bobRadius: 17, rod: 2, seconds: 3, semiArcDeg: 4.2, periodS: 0.93 }
  const frames = madeFilm({ ...film, pivot: [100.3, -40], length: 160 })

  test('a film file and a folder of its frames tell the same swing', async () => {
    const parts = [Buffer.from('YUV4MPEG2 W200 H160 F30000:1001 Ip A1:1 C420jpeg\n')]
    for (const { grey } of frames) parts.push(Buffer.from('FRAME\n'), Buffer.from(grey), Buffer.alloc(200 * 80, 128))
    writeFileSync(at('film.y4m'), Buffer.concat(parts))
    mkdirSync(at('frames'))
    for (const [i, { grey }] of frames.entries())
      await sharp(Buffer.from(grey), { raw: { width: 200, height: 160, channels: 1 } })
        .png()
        .toFile(at(`frames/frame${i}.png`))
    const byFile = lines(command('swing', at('film.y4m')).out)[0] as Record<string, number>
    expect(Object.keys(byFile)).toEqual(expect.arrayContaining(['semiArcDeg', 'standardError', 'periodS', 'middleDeg']))
    expect(Math.abs(byFile.semiArcDeg! / 4.2 - 1)).toBeLessThan(0.01)
    expect(byFile.periodS).toBeCloseTo(0.93, 2)
    const byFolder = lines(command('swing', at('frames'), '--fps', '29.97').out)[0] as Record<string, number>
    expect(byFolder.semiArcDeg).toBeCloseTo(byFile.semiArcDeg!, 3)
    writeFileSync(at('frames/rate'), '29.97\n')
    expect(lines(command('swing', at('frames')).out)[0]).toEqual(byFolder)
  })

  test('a folder that does not say its rate, an empty one, a bad place: one line each, and 2', () => {
    mkdirSync(at('empty'))
    rmSync(at('frames/rate'))
    for (const [args, why] of [
      [[at('frames')], '--fps is missing'],
      [[at('empty'), '--fps', '30'], 'no PNG frames'],
      [[at('film.y4m'), '--suspension', 'there'], '--suspension is there'],
      [[at('film.y4m'), '--fps', '0'], '--fps is 0'],
      [[at('none.mp4')], 'there is no such file'],
    ] as const) {
      const { status, error } = command('swing', ...args)
      expect(status).toBe(2)
      expect(error).toContain(why)
    }
  })
})
