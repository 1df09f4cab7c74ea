import { describe, expect, test } from 'vitest'
import { ask as run } from './ask.ts'

const close = (value: number, digits = 6): unknown => expect.closeTo(value, digits)

const ROD = { shape: 'rod', massG: 100, centreMm: 500, lengthMm: 1000 }

describe('the calculations of the whole pendulum, as they are asked', () => {
  test('a uniform rod: two thirds of its length', () => {
    expect(run('pendulum.compound', { parts: [ROD] })).toEqual({
      massG: 100,
      cgMm: 500,
      lengthMm: close(2000 / 3),
      beatsPerHour: close((3600 / Math.PI) * Math.sqrt(9806.65 / (2000 / 3))),
      secondsPerDayPerMm: 0,
      secondsPerDayPerTurn: null,
    })
  })

  test('a point that rides on the nut: 43200/L a millimetre, by the pitch a turn', () => {
    const bob = { shape: 'point', massG: 5, centreMm: 900, moves: true }
    expect(run('pendulum.compound', { parts: [bob], pitchMm: 0.5, gravity: 9.81 })).toMatchObject({
      secondsPerDayPerMm: close(48),
      secondsPerDayPerTurn: close(24),
      beatsPerHour: close((3600 / Math.PI) * Math.sqrt(9810 / 900)),
    })
  })

  test('a gram in the middle of five kilograms: 2.16 s a day', () => {
    const pendulum = { pendulumMassG: 5000, cgMm: 994, lengthMm: 994 }
    expect(run('pendulum.addMass', { massG: 1, atMm: 497, ...pendulum })).toEqual({ secondsPerDay: close(2.16, 2) })
  })

  test('a steel rod loses half a second a degree; a brass sleeve upward from its foot makes up for it', () => {
    const steel = run('pendulum.temperature', { parts: [ROD], rodAlphaPerMillion: 11.5 })
    expect(steel).toEqual({ secondsPerDayPerC: close(-0.4968) })
    // A point on top of a sleeve with no mass: R·11.5 = h·α.
    const bob = { shape: 'cylinder', massG: 1000, centreMm: 700, lengthMm: 600, radiusMm: 1e-3, holdsAt: 'bottom' }
    const over = run('pendulum.temperature', { parts: [{ ...bob, alphaPerMillion: 60 }], rodAlphaPerMillion: 11.5 })
    expect((over as { secondsPerDayPerC: number }).secondsPerDayPerC).toBeGreaterThan(0)
  })

  test('mercury: what the column does with its bottom where it is', () => {
    const { columnMm, massG } = run('pendulum.mercury', {
      jarBottomMm: 1060,
      rodAlphaPerMillion: 11.5,
      jarRadiusMm: 25,
    }) as { columnMm: number; massG: number }
    expect(massG).toBeCloseTo(0.013546 * Math.PI * 625 * columnMm, 3)
    const wider = run('pendulum.mercury', {
      jarBottomMm: 1060,
      rodAlphaPerMillion: 11.5,
      jarRadiusMm: 25,
      jarAlphaPerMillion: 12,
    }) as { columnMm: number }
    expect(wider.columnMm).toBeGreaterThan(columnMm)
  })

  test('from 45° to 60° a clock gains 57 s a day; higher up it loses', () => {
    const at = (latitudeDeg: number, altitudeM?: number) => ({ latitudeDeg, altitudeM })
    expect(run('pendulum.moved', { from: at(45), to: at(60) })).toEqual({ secondsPerDay: close(57.17, 1) })
    // 2·h/R of gravity, so a day·h/R: 13.5 s a kilometre.
    expect(run('pendulum.moved', { from: at(47), to: at(47, 1000) })).toEqual({ secondsPerDay: close(-13.6, 0) })
  })

  test('a run-down to 1/e in 1000 s, and what a weight gives', () => {
    const readings = [0, 250, 500, 750, 1000].map((atS) => ({ atS, semiArcDeg: 3 * Math.exp(-atS / 1000) }))
    const free = run('pendulum.decay', { readings, lengthMm: 993.62, massG: 5000, cgMm: 960, semiArcDeg: 2 })
    expect(free).toMatchObject({ quality: close((Math.PI * 1000) / 2, 0), tauS: close(1000, 2) })
    const { lossPerBeatMicroJ } = free as { lossPerBeatMicroJ: number }
    const energy = 5 * 9.80665 * 0.96 * (1 - Math.cos((2 * Math.PI) / 180)) * 1e6
    expect(lossPerBeatMicroJ).toBeCloseTo((energy * Math.PI) / ((Math.PI * 1000) / 2), 0)
    const weight = { weightKg: 5, fallMm: 1200, hours: 192, beatsPerHour: 3600 }
    expect(run('drive.perBeat', { ...weight, lossPerBeatMicroJ: 42 })).toEqual({
      microJPerBeat: close((5 * 9.80665 * 1.2e6) / 691_200),
      efficiencyPercent: close((42 * 691_200) / (5 * 9.80665 * 1.2e4)),
    })
  })

  test.each([
    ['pendulum.compound', { parts: [] }, /parts/],
    ['pendulum.compound', { parts: [{ shape: 'disc', massG: 1, centreMm: 1 }] }, /parts\[0\]\.radiusMm/],
    ['pendulum.compound', { parts: [{ ...ROD, shape: 'cube' }] }, /shape/],
    ['pendulum.moved', { from: { latitudeDeg: 95 }, to: { latitudeDeg: 1 } }, /latitudeDeg/],
    ['pendulum.mercury', { jarBottomMm: 1000, rodAlphaPerMillion: 11.5 }, /jarRadiusMm/],
    ['drive.perBeat', { weightKg: 0, fallMm: 1, hours: 1, beatsPerHour: 3600 }, /weightKg/],
  ])('%s names what can’t be', (name, input, message) => {
    expect(() => run(name, input)).toThrow(message)
  })
})

test('the rate book learns the warmth that its readings tell of', () => {
  const readings = Array.from({ length: 21 }, (_, day) => ({
    at: new Date(Date.UTC(2026, 2, 1 + day)).toISOString(),
    errorSeconds: -0.4 * day * day,
    temperatureC: 10 + day,
  }))
  // Warmer by a degree a day, it loses 0.8 s a day more each day.
  const book = run('rate.book', { readings }) as { secondsPerDayPerC: number; perCStandardError: number }
  expect(Math.abs(book.secondsPerDayPerC + 0.8)).toBeLessThan(2 * book.perCStandardError)
  expect(book).toMatchObject({ suspects: [] })
})
