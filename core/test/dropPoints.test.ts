import { describe, expect, test } from 'vitest'
import {
  angleFrom,
  arcTrend,
  clicksIn,
  DEFAULT_PRACTICE_CLOCK,
  dropPoints,
  dropsOf,
  MarkFollower,
  PowerTrack,
  PRACTICE_FILM,
  practiceFrame,
  PracticeSound,
  suspensionByAngles,
  swingInFilm,
  type AngleAt,
} from '../src/index.ts'
import { normal, random } from './clockSound.ts'

/** A bob led across by hand, ±4° in eight seconds, thirty pictures a second. */
function led(evenDeg: number, releaseDeg: number, seed: number, lagS = 0) {
  const gauss = normal(random(seed))
  const path: AngleAt[] = []
  const clicks: number[] = []
  let released = ''
  const deg = (s: number) => 4 * Math.sin((2 * Math.PI * s) / 8)
  for (let i = 0; i < 30 * 40; i++) {
    const atS = i / 30
    path.push({ atS, deg: deg(atS) + 0.02 * gauss() })
    for (let j = 0; j < 10; j++) {
      const s = atS + j / 300
      const side = deg(s) > evenDeg + releaseDeg ? 'right' : deg(s) < evenDeg - releaseDeg ? 'left' : ''
      if (side !== '' && side !== released) {
        released = side
        clicks.push(s + lagS)
      }
    }
  }
  return { path, clicks }
}

describe('where an escapement drops, the bob moved by hand', () => {
  test('φ and δ are found, and as surely as is said', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const u = random(seed)
      const [even, release] = [u() - 0.5, 1.2 + u()]
      const { path, clicks } = led(even, release, seed)
      const told = dropPoints(
        dropsOf(
          path,
          [...clicks, 3.1, 9.9].sort((a, b) => a - b),
        ),
      )
      expect(Math.abs(told.releaseDeg - release)).toBeLessThan(2 * told.releaseStandardError)
      expect(Math.abs(told.offsetDeg - even)).toBeLessThan(2 * told.offsetStandardError)
      expect(told.offsetStandardError).toBeLessThan(0.05)
      expect(told.right + told.left).toBeGreaterThanOrEqual(clicks.length - 1)
    }
  })

  test('a sound that comes late widens φ within its error, and leaves δ', () => {
    const { path, clicks } = led(0.3, 2, 5, 0.06)
    const told = dropPoints(dropsOf(path, clicks))
    expect(Math.abs(told.offsetDeg - 0.3)).toBeLessThan(0.04)
    expect(Math.abs(told.releaseDeg - 2)).toBeGreaterThan(0.05)
    expect(Math.abs(told.releaseDeg - 2)).toBeLessThan(2 * told.releaseStandardError)
  })

  test('clicks while it stands, or while it is not seen, are no drops; a side that is wanting is named', () => {
    const standing = Array.from({ length: 90 }, (_, i) => ({ atS: i / 30, deg: 2 }))
    expect(dropsOf(standing, [1])).toEqual([])
    const { path, clicks } = led(0, 2, 1)
    expect(
      dropsOf(
        path.filter((p) => p.atS < 1 || p.atS > 3),
        [2],
      ),
    ).toEqual([])
    const rights = dropsOf(path, clicks).filter((d) => d.side === 'right')
    expect(() => dropPoints(rights)).toThrow('to the left twice')
    expect(() => dropPoints(rights.slice(0, 1))).toThrow('to the right again')
    const swapped = dropsOf(path, clicks).map((d) => ({ ...d, deg: -d.deg }))
    expect(() => dropPoints(swapped)).toThrow('begin again')
  })

  test('of the practice clock, seen and heard: its own release and offset', () => {
    const clock = { ...DEFAULT_PRACTICE_CLOCK, releaseDeg: 1.8, offsetDeg: 0.4 }
    const swinging = Array.from({ length: 60 }, (_, i) => practiceFrame(clock, i / 30))
    const swing = swingInFilm(swinging)
    const RATE = 22_050
    const sound = new PracticeSound(clock, RATE)
    const track = new PowerTrack(RATE)
    const { suspension, lengthPx } = PRACTICE_FILM
    const first = practiceFrame(clock, 0, 0)
    const follower = new MarkFollower(first, { x: suspension.x, y: suspension.y + lengthPx }, 30)
    const path: AngleAt[] = []
    for (let i = 1; i < 15 * 24; i++) {
      const held = 3.5 * Math.sin((2 * Math.PI * i) / 15 / 8)
      sound.hold(held)
      track.push(sound.next(RATE / 15))
      const seen = follower.next(practiceFrame(clock, i / 15, held))
      if (seen) path.push({ atS: i / 15, deg: angleFrom(swing.suspension, seen) - swing.middleDeg })
    }
    const told = dropPoints(dropsOf(path, clicksIn(track.bins, track.binS)))
    expect(Math.abs(told.releaseDeg - 1.8)).toBeLessThan(0.15)
    expect(Math.abs(told.offsetDeg - 0.4)).toBeLessThan(0.05)
  })
})

describe('clicks in a sound where nothing beats', () => {
  test('are each told once, to a few ms, and none in noise', () => {
    const RATE = 16_000
    const gauss = normal(random(9))
    const samples = Float32Array.from({ length: 12 * RATE }, () => 0.002 * gauss())
    const at = [1.5, 3.2, 3.9, 8.44]
    for (const s of at)
      for (let i = 0; i < 400; i++)
        samples[Math.round(s * RATE) + i]! += 0.2 * Math.exp(-i / 60) * Math.sin((2 * Math.PI * 3000 * i) / RATE)
    const track = new PowerTrack(RATE)
    track.push(samples)
    const clicks = clicksIn(track.bins, track.binS)
    expect(clicks.length).toBe(at.length)
    clicks.forEach((c, i) => expect(Math.abs(c - at[i]!)).toBeLessThan(0.006))
    const quiet = new PowerTrack(RATE)
    quiet.push(Float32Array.from({ length: 30 * RATE }, () => 0.01 * gauss()))
    expect(clicksIn(quiet.bins, quiet.binS)).toEqual([])
  })
})

test('the suspension is where lines at their angles through the places of the bob meet', () => {
  const suspension = { x: 140, y: -200 }
  const angles = [-4, -1, 0.5, 3, 4.2]
  const places = angles.map((deg) => ({
    x: suspension.x + 330 * Math.sin((deg * Math.PI) / 180),
    y: suspension.y + 330 * Math.cos((deg * Math.PI) / 180),
  }))
  const found = suspensionByAngles(places, angles)!
  expect(found.x).toBeCloseTo(140, 6)
  expect(found.y).toBeCloseTo(-200, 5)
  expect(suspensionByAngles(places, [2, 2, 2, 2, 2])).toBeNull()
})

test('an arc that falls slowly is told with an error that holds, though its pictures overlap', () => {
  let within = 0
  for (let seed = 1; seed <= 100; seed++) {
    const gauss = normal(random(seed))
    const raw = Array.from({ length: 306 }, () => 0.02 * gauss())
    // Told every second from the six seconds before.
    const arcs = Array.from({ length: 300 }, (_, i) => ({
      atS: i,
      deg: 4 - (0.05 * i) / 60 + raw.slice(i, i + 6).reduce((a, b) => a + b, 0) / 6,
    }))
    const told = arcTrend(arcs, 6)!
    if (Math.abs(told.perMinuteDeg + 0.05) < 2 * told.standardError) within++
  }
  expect(within).toBeGreaterThanOrEqual(90)
  expect(arcTrend([], 6)).toBeNull()
  expect(
    arcTrend(
      [0, 1, 2].map((atS) => ({ atS, deg: 3 })),
      6,
    ),
  ).toBeNull()
})
