import { describe, expect, test } from 'vitest'
import { goingCounts, hear, periodicFaults, ringStory, secondsToTell, type Hearing } from '../src/index.ts'
import type { ToothReport } from '../src/listen/teeth.ts'
import { random } from './clockSound.ts'
import { madeBeats as beats, MADE_TRAINS as TRAINS, type MadeRow as Row } from './madeWheels.ts'
import { heard } from './hearClock.ts'

describe('wheels in the beat', () => {
  test('the arbor that wobbles is named, and no other, from 0.5 ms on in three of its turns', () => {
    let named = 0
    let asked = 0
    for (const { train, beatsPerHour, periodsS } of TRAINS)
      for (const arbor of [1, 2])
        for (const ms of [0.5, 1, 2])
          for (let seed = 1; seed <= 4; seed++) {
            const periodS = periodsS[arbor]!
            const row = { seconds: Math.max(120, 3.2 * periodS), scatterMs: 0.25, wobble: { periodS, ms }, seed }
            const found = periodicFaults(...beats(beatsPerHour, row), train)
            asked++
            const one = found.arbors.find((a) => a.arbor === arbor)
            if (one) named++
            if (one) expect(Math.abs(one.amplitudeMs - ms)).toBeLessThan(0.12)
            expect(found.arbors.filter((a) => a.arbor !== arbor)).toEqual([])
            expect(found.meshes).toEqual([])
          }
    expect(named).toBeGreaterThanOrEqual(Math.floor(0.95 * asked))
  })

  test('nothing is named where nothing is: level noise, a clock that wanders, a rhythm of no wheel', () => {
    let false0 = 0
    for (let seed = 1; seed <= 120; seed++) {
      const { train, beatsPerHour, periodsS } = TRAINS[seed % TRAINS.length]!
      const other = { periodS: periodsS[2]! * (1.09 + 0.4 * random(seed)()), ms: 1.5 }
      const row: Row = [
        { seconds: 200, scatterMs: 0.25, seed },
        { seconds: 300, scatterMs: 0.2, walkMs: 3, seed },
        { seconds: 300, scatterMs: 0.2, wobble: other, seed },
      ][seed % 3]!
      const found = periodicFaults(...beats(beatsPerHour, row), train)
      if (found.arbors.length + found.meshes.length > 0) false0++
    }
    expect(false0).toBeLessThanOrEqual(1)
  })

  test('the teeth of a wheel, one by one, are told from the wheel itself', () => {
    const { train, beatsPerHour } = TRAINS[0]!
    const row = { seconds: 400, scatterMs: 0.25, wobble: { periodS: 450 / 60, ms: 0.8 }, seed: 3 }
    const found = periodicFaults(...beats(beatsPerHour, row), train)
    expect(found.arbors).toEqual([])
    expect(found.meshes).toMatchObject([{ arbor: 1, teeth: 60, periodS: 7.5 }])
  })

  test('a saw-tooth once a turn is measured from peak to peak, its harmonics with it', () => {
    const { train, beatsPerHour } = TRAINS[0]!
    const [index, late] = beats(beatsPerHour, { seconds: 600, scatterMs: 0.1, seed: 9 })
    const saw = late.map((v, i) => v + 2 * ((index[i]! % 60) / 60 - 0.5))
    const [escape] = periodicFaults(index, saw, train).arbors
    // Half of peak to peak of a saw-tooth from −1 to 1 is 1; six harmonics of it reach a little over (Gibbs).
    expect(escape).toMatchObject({ arbor: 2 })
    expect(escape!.amplitudeMs).toBeGreaterThan(0.8)
    expect(escape!.amplitudeMs).toBeLessThan(1.25)
  })

  test('how long to listen: three turns of each', () => {
    expect(secondsToTell(TRAINS[0]!.train)).toEqual([10_800, 1350, 180])
    expect(() => secondsToTell({ wheels: [64], pinions: [8, 8], escapeTeeth: 30 })).toThrow('pinions')
  })

  test('by sound: a wobble of the escape wheel, the other wheels silent, and of another train nothing', () => {
    const clock = {
      beatsPerHour: 7200,
      seconds: 100,
      sampleRate: 22_050,
      scatterMs: 0.2,
      wobble: [{ periodS: 30, ms: 1 }],
    }
    const result = heard(clock, { train: TRAINS[1]!.train })
    expect(result.periodic?.arbors).toMatchObject([{ arbor: 2, periodS: 30 }])
    expect(Math.abs(result.periodic!.arbors[0]!.amplitudeMs - 1)).toBeLessThan(0.15)
    expect(heard({ ...clock, seconds: 30 }, { train: TRAINS[0]!.train }).periodic).toBeUndefined()
  })
})

describe('the counts of a going train', () => {
  const arbor = (name: string, pinion: number | null, wheel: number | null) => ({ name, pinion, wheel })
  const sheet = {
    train: 'going',
    hourly: 1,
    escape: true,
    arbors: [arbor('Great', null, 96), arbor('Centre', 8, 64), arbor('Third', 8, 60), arbor('Escape', 8, 30)],
  }
  test('are those from the hourly arbor up', () => {
    expect(goingCounts([sheet])).toEqual({ ...TRAINS[0]!.train, names: ['Centre', 'Third', 'Escape'] })
  })
  test('are none while one is missing, or nothing turns once an hour', () => {
    expect(goingCounts([{ ...sheet, hourly: null }])).toBeNull()
    expect(goingCounts([{ ...sheet, arbors: [...sheet.arbors.slice(0, 3), arbor('Escape', null, 30)] }])).toBeNull()
    expect(goingCounts([])).toBeNull()
  })
})

describe('the ring of teeth', () => {
  const ring = (teeth: number, late: (pallet: 'first' | 'second', tooth: number) => number): ToothReport[] =>
    (['first', 'second'] as const).flatMap((pallet) =>
      Array.from({ length: teeth }, (_, i) => {
        const lateMs = late(pallet, i + 1)
        return { tooth: i + 1, pallet, lateMs, standardErrorMs: 0.05, turnsHeard: 4, bent: Math.abs(lateMs) > 1 }
      }),
    )

  test('is even where all teeth drop alike', () => {
    expect(
      ringStory(
        ring(30, () => 0.02),
        30,
      ),
    ).toMatchObject({ kind: 'even', teeth: [] })
  })
  test('a bent tooth comes to both pallets, as many teeth apart as they span', () => {
    const story = ringStory(
      ring(30, (pallet, tooth) =>
        tooth === (pallet === 'first' ? 4 : 11) || tooth === (pallet === 'first' ? 20 : 27) ? 3 : 0,
      ),
      30,
    )
    expect(story).toMatchObject({ kind: 'teeth', spanned: 7 })
    expect(story.teeth).toEqual([
      { tooth: 4, firstMs: 3, secondMs: 3 },
      { tooth: 20, firstMs: 3, secondMs: 3 },
    ])
  })
  test('a tooth that is late on one pallet only is no matter of its length', () => {
    expect(
      ringStory(
        ring(30, (pallet, tooth) => (pallet === 'second' && tooth === 5 ? -2 : 0)),
        30,
      ),
    ).toMatchObject({
      kind: 'one pallet',
      teeth: [{ tooth: 5, firstMs: null, secondMs: -2 }],
    })
  })
  test('a wheel out of true drops late and early once a turn', () => {
    const story = ringStory(
      ring(36, (pallet, tooth) => 0.7 * Math.sin((2 * Math.PI * tooth) / 36 + (pallet === 'first' ? 0 : 1))),
      36,
    )
    expect(story.kind).toBe('eccentric')
    expect(story.eccentricMs).toBeCloseTo(0.7, 2)
  })
})

describe('what a tick is made of', () => {
  const knock = (atMs: number, levelDb: number) => ({ atMs, levelDb, spreadDb: 2, scatterMs: 0.1 })
  const result: Hearing = heard({
    seconds: 40,
    unevenMs: 4,
    sampleRate: 32_000,
    loudness: [0.3, 0.1],
    ringMs: [4, 4],
    ticks: [[knock(-6, -10), knock(5, -4)], [knock(-8, -8)]],
  })
  test('each side’s knocks at their times, the drop at nought', () => {
    const [first, second] = result.sides
    expect(first.knocks.map((k) => Math.round(k.ms))).toEqual([-6, 0, 5])
    expect(second.knocks.map((k) => Math.round(k.ms))).toEqual([-8, 0])
    expect(first.knocks[0]!.share).toBeGreaterThan(0.2)
    expect(first.knocks[0]!.share).toBeLessThan(0.5)
  })
  test('the louder side is louder by what it is', () => {
    // 0.3 against 0.1 is 9.5 dB.
    expect(result.sides[0].loudnessDb - result.sides[1].loudnessDb).toBeCloseTo(9.5, -0.5)
  })
  test('in silence there is none', () => {
    expect(hear(new Float32Array(100_000), 1e-4)).toMatchObject({ heard: false, reason: 'silence' })
  })
})
