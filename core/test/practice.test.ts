import { expect, test } from 'vitest'
import {
  beatIntervals,
  checkPracticeClock,
  DEFAULT_PRACTICE_CLOCK,
  hear,
  PowerTrack,
  practiceLike,
  PracticeSound,
  practiceTrain,
  seededRandom,
  type PracticeClock,
} from '../src/index.ts'

const RATE = 32_000

function heard(clock: PracticeClock, seconds = 30) {
  const track = new PowerTrack(RATE)
  track.push(new PracticeSound(clock, RATE).next(RATE * seconds))
  const result = hear(track.bins, track.binS, { beatsPerHour: clock.beatsPerHour })
  if (!result.heard) throw new Error(result.sentence)
  return result
}

test.each([
  [7200, 5, 2, 0.5],
  [3600, 2, 1, -0.1],
  [9000, 5, 2.4, 0],
  [18_000, 8, 3, 1.5],
])('its beat and rate are those it was set to: %d', (beatsPerHour, semiArcDeg, releaseDeg, offsetDeg) => {
  const clock = { ...DEFAULT_PRACTICE_CLOCK, beatsPerHour, semiArcDeg, releaseDeg, offsetDeg, rateSecondsPerDay: 25 }
  const result = heard(clock)
  const { rightToLeftMs, leftToRightMs } = beatIntervals(
    beatsPerHour * (1 + 25 / 86_400),
    semiArcDeg,
    releaseDeg,
    offsetDeg,
  )
  expect(Math.abs(result.outOfBeatMs - Math.abs(rightToLeftMs - leftToRightMs) / 2)).toBeLessThan(0.3)
  expect(Math.abs(result.rateSecondsPerDay - 25)).toBeLessThan(Math.max(0.6, 3 * result.rateStandardError))
})

test('sounds the same however it is cut into blocks', () => {
  const whole = new PracticeSound(DEFAULT_PRACTICE_CLOCK, RATE).next(RATE)
  const sound = new PracticeSound(DEFAULT_PRACTICE_CLOCK, RATE)
  const cut = [1000, 1, 14_999, 16_000].flatMap((n) => Array.from(sound.next(n)))
  expect(Math.max(...cut.map((v, i) => Math.abs(v - whole[i]!)))).toBeLessThan(1e-6)
})

test('a clock that would stand still is refused', () => {
  expect(() => checkPracticeClock({ ...DEFAULT_PRACTICE_CLOCK, releaseDeg: 6 })).toThrow(/releaseDeg/)
  expect(() => checkPracticeClock({ ...DEFAULT_PRACTICE_CLOCK, offsetDeg: 3.5 })).toThrow(/offsetDeg/)
  expect(() => checkPracticeClock({ ...DEFAULT_PRACTICE_CLOCK, beatsPerHour: 100 })).toThrow(/beatsPerHour/)
})

test('chance from a seed is uniform, normal, and the same again', () => {
  const one = seededRandom(5)
  const draws = Array.from({ length: 20_000 }, () => one.normal())
  const mean = draws.reduce((a, b) => a + b, 0) / draws.length
  const spread = Math.sqrt(draws.reduce((a, b) => a + (b - mean) ** 2, 0) / draws.length)
  // Four standard errors: 4/√20000 and 4/√40000.
  expect(Math.abs(mean)).toBeLessThan(0.029)
  expect(Math.abs(spread - 1)).toBeLessThan(0.02)
  expect(seededRandom(5).normal()).toBe(draws[0])
  expect(seededRandom(6).normal()).not.toBe(draws[0])
})

test('its case leant to the right by as much as its escapement stands off, it is in beat; too far is refused', () => {
  const sound = new PracticeSound({ ...DEFAULT_PRACTICE_CLOCK, offsetDeg: 0.5 }, RATE)
  sound.lean(0.5)
  const track = new PowerTrack(RATE)
  // In small blocks, the lean told while it goes.
  for (let i = 0; i < 300; i++) track.push(sound.next(RATE / 10))
  const result = hear(track.bins, track.binS, { beatsPerHour: DEFAULT_PRACTICE_CLOCK.beatsPerHour })
  expect(result.heard && result.outOfBeatMs).toBeLessThan(0.4)
  expect(() => sound.lean(-4)).toThrow('offsetDeg')
})

test('leaning moves only what has not begun to sound: the same seed, leant back and forth, keeps its later beats', () => {
  const plain = new PracticeSound(DEFAULT_PRACTICE_CLOCK, RATE)
  const leant = new PracticeSound(DEFAULT_PRACTICE_CLOCK, RATE)
  const before = [plain.next(RATE), leant.next(RATE)] as const
  expect(before[1]).toEqual(before[0])
  leant.lean(0.4)
  plain.next(RATE)
  leant.next(RATE)
  leant.lean(0)
  plain.next(RATE)
  leant.next(RATE)
  const [a, b] = [plain.next(RATE), leant.next(RATE)]
  expect(b).toEqual(a)
})

test.each([
  [{ beatsPerHour: null, semiArcDeg: null, releaseDeg: null }, 0],
  [{ beatsPerHour: 3600, semiArcDeg: 1.2, releaseDeg: 2 }, 5],
  [{ beatsPerHour: 18_000, semiArcDeg: 30, releaseDeg: 8 }, -9],
])('one made like another goes, whatever is known of that one', (pendulum, offsetDeg) => {
  const clock = practiceLike(pendulum, offsetDeg)
  expect(() => checkPracticeClock(clock)).not.toThrow()
  if (pendulum.beatsPerHour !== null) expect(clock.beatsPerHour).toBe(pendulum.beatsPerHour)
})

test('a bad tooth of its escape wheel is heard on both pallets, and no other', () => {
  const clock = { ...DEFAULT_PRACTICE_CLOCK, escapeTeeth: 30, toothLateMs: 4, offsetDeg: 0 }
  const track = new PowerTrack(RATE)
  track.push(new PracticeSound(clock, RATE).next(RATE * 95))
  const result = hear(track.bins, track.binS, { beatsPerHour: 7200, teeth: 30 })
  if (!result.heard) throw new Error(result.sentence)
  const bent = result.teeth!.filter((t) => t.bent)
  expect(bent.map((t) => t.pallet).sort()).toEqual(['first', 'second'])
  for (const { lateMs, standardErrorMs } of bent) expect(Math.abs(lateMs - 4)).toBeLessThan(4 * standardErrorMs + 0.3)
})

test('its wheel that is out of round is named', () => {
  const clock = { ...DEFAULT_PRACTICE_CLOCK, wobbleMs: 1.5, wobblePeriodS: 30, rateSecondsPerDay: 0 }
  const track = new PowerTrack(RATE)
  track.push(new PracticeSound(clock, RATE).next(RATE * 120))
  const result = hear(track.bins, track.binS, { beatsPerHour: 7200, train: practiceTrain(clock)! })
  if (!result.heard) throw new Error(result.sentence)
  expect(result.periodic!.arbors.map((p) => p.arbor)).toEqual([2])
  expect(Math.abs(result.periodic!.arbors[0]!.amplitudeMs - 1.5)).toBeLessThan(0.2)
})

test('its train belongs to its beat; one made otherwise has none that is known', () => {
  const { wheels, pinions, escapeTeeth } = practiceTrain(DEFAULT_PRACTICE_CLOCK)!
  expect((2 * escapeTeeth * wheels[0]! * wheels[1]!) / (pinions[0]! * pinions[1]!)).toBe(7200)
  expect(practiceTrain({ ...DEFAULT_PRACTICE_CLOCK, beatsPerHour: 9000 })).toBeNull()
})
