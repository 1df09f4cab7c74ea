import { describe, expect, test } from 'vitest'
import { callBackBySound, type CallBackCause, type SoundPrint } from '../src/care/callBack.ts'
import { random, type ClockSound } from './clockSound.ts'
import { heard } from './hearClock.ts'

function print(clock: ClockSound): SoundPrint {
  const h = heard(clock, { beatsPerHour: clock.beatsPerHour })
  return {
    firstToSecondMs: h.intervalsMs[0],
    secondToFirstMs: h.intervalsMs[1],
    outOfBeatStandardError: h.outOfBeatStandardError,
    rateSecondsPerDay: h.rateSecondsPerDay,
    rateStandardError: h.rateStandardError,
    scatterMs: h.scatterMs,
    sides: h.sides,
  }
}

/** A clock as it left, and as it is when its owner calls. */
function pair(seed: number): { left: ClockSound; now: ClockSound; cause: CallBackCause | null } {
  const u = random(seed * 613)
  const cause = ([null, 'tilt', 'power', 'dirt'] as const)[seed % 4]!
  const loud = 0.3
  const left: ClockSound = {
    seconds: 40,
    sampleRate: 22_050,
    beatsPerHour: [3600, 7200, 9000][Math.floor(3 * u())]!,
    unevenMs: 3 * u(),
    scatterMs: 0.15 + 0.15 * u(),
    loudness: [loud, loud * (0.4 + 0.3 * u())],
    colourHz: [2600 + 600 * u(), 1800 + 500 * u()],
    rateSecondsPerDay: 6 * (u() - 0.5),
    noise: 0.002,
    seed,
  }
  const now: ClockSound = { ...left, seed: seed + 9000, noise: 0.002 + 0.002 * u() }
  if (cause === 'tilt') now.unevenMs = left.unevenMs! + (u() < 0.5 ? -1 : 1) * (5 + 12 * u())
  if (cause === 'power') {
    const weaker = 10 ** (-(5 + 5 * u()) / 20)
    now.loudness = [left.loudness![0] * weaker, left.loudness![1] * weaker]
    now.rateSecondsPerDay = left.rateSecondsPerDay! + 5 + 5 * u()
  }
  if (cause === 'dirt') now.scatterMs = left.scatterMs! * (2.2 + 1.5 * u()) + 0.15
  return { left, now, cause }
}

describe('a clock that is called back', () => {
  test('of fifty pairs nearly all are told apart: as it left, tilted, weak, dirty', () => {
    const wrong: string[] = []
    for (let seed = 1; seed <= 50; seed++) {
      const { left, now, cause } = pair(seed)
      const told = callBackBySound(print(left), print(now), true)
      const causes = told.causes.map((c) => c.cause)
      if (causes.length !== (cause === null ? 0 : 1) || (cause !== null && causes[0] !== cause))
        wrong.push(`${seed} ${cause}: ${JSON.stringify(told)}`)
    }
    expect(wrong.length, wrong.join('\n')).toBeLessThanOrEqual(2)
  })

  const base = print(pair(4).left)
  test('which side is first does not matter: a recording that begins on the other side is as it left', () => {
    const other: SoundPrint = {
      ...base,
      firstToSecondMs: base.secondToFirstMs,
      secondToFirstMs: base.firstToSecondMs,
      sides: [base.sides[1], base.sides[0]],
    }
    const told = callBackBySound(base, other, true)
    expect(told.causes).toEqual([])
    expect(told.beatChangeMs).toBeCloseTo(0, 9)
  })

  test('by another recorder quietness alone is only a perhaps, and rustle says nothing', () => {
    const quiet: SoundPrint = {
      ...base,
      sides: base.sides.map((s) => ({
        ...s,
        loudnessDb: s.loudnessDb - 12,
        rustleDb: s.rustleDb + 20,
      })) as SoundPrint['sides'],
    }
    expect(callBackBySound(base, quiet, false).causes).toEqual([{ cause: 'power', sure: 'perhaps' }])
    const fast = { ...quiet, rateSecondsPerDay: base.rateSecondsPerDay + 8 }
    expect(callBackBySound(base, fast, false).causes).toEqual([{ cause: 'power', sure: 'likely' }])
    expect(callBackBySound(base, fast, true).causes).toContainEqual({ cause: 'power', sure: 'clearly' })
  })

  test('a beat that changed less than it is known did not change', () => {
    const moved = (ms: number, error: number): SoundPrint => ({
      ...base,
      firstToSecondMs: base.firstToSecondMs + ms,
      secondToFirstMs: base.secondToFirstMs - ms,
      outOfBeatStandardError: error,
    })
    expect(callBackBySound(base, moved(2.5, 1), true).causes).toEqual([])
    expect(callBackBySound(base, moved(2.5, 0.1), true).causes).toEqual([{ cause: 'tilt', sure: 'likely' }])
    expect(callBackBySound(base, moved(9, 0.1), true).causes).toEqual([{ cause: 'tilt', sure: 'clearly' }])
  })
})
