import { describe, expect, test } from 'vitest'
import { nextOf as atBushing } from '../src/surfaces/bushings/next.ts'
import { nextOf as atArbor } from '../src/surfaces/betweenPlates/next.ts'
import { nextOf as atHole } from '../src/surfaces/holes/next.ts'
import { nextOf as atListening } from '../src/surfaces/listen/next.ts'
import { nextOf as atPivot } from '../src/surfaces/pivots/next.ts'
import { nextOf as atPower } from '../src/surfaces/power/next.ts'

describe('at a bushing', () => {
  const STEPS = [
    { key: 'mark', title: 'Mark the wear' },
    { key: 'cut', title: 'Cut' },
  ]
  const now = (part: Partial<Parameters<typeof atBushing>[0]>) =>
    atBushing({
      hole: { train: 'going', arbor: 'Third', plate: 'back' },
      steps: STEPS,
      done: [],
      pivotOpen: false,
      nextHole: undefined,
      trainToRun: undefined,
      ...part,
    })

  test('the first step that is not done, with how far it is', () => {
    expect(now({})).toMatchObject({ what: 'step', key: 'mark', hint: 'Third, back plate; 1 of 2' })
    expect(now({ done: ['mark'] })).toMatchObject({ what: 'step', key: 'cut' })
  })

  test('marking does not wait for the pivot, cutting does', () => {
    expect(now({ pivotOpen: true }).what).toBe('step')
    expect(now({ pivotOpen: true, done: ['mark'] }).what).toBe('pivot-first')
  })

  test('then the next hole, the trains one by one, and on', () => {
    const done = ['mark', 'cut']
    expect(now({ done, nextHole: { arbor: 'Centre', plate: 'front' } }).what).toBe('next-hole')
    expect(now({ done, trainToRun: 'strike' })).toMatchObject({ what: 'run-train', train: 'strike' })
    expect(now({ done }).what).toBe('assemble')
  })
})

describe('at a hole', () => {
  const now = (part: Partial<Parameters<typeof atHole>[0]>) =>
    atHole({
      hole: { arbor: 'Third', plate: 'back', bushed: false },
      verdict: null,
      changed: false,
      whole: false,
      pivotUnfinished: false,
      next: { arbor: 'Centre', plate: 'back' },
      pivotsWait: false,
      bushesWait: false,
      ...part,
    })

  test('what is half typed is neither kept nor left by a press', () => {
    expect(now({ changed: true })).toEqual({ what: 'type', label: 'Type what is missing, then Enter' })
    expect(now({ changed: true, whole: true }).what).toBe('keep')
  })

  test('a bush waits for its pivot, and is put in by its plan: no press says that it is in', () => {
    expect(now({ verdict: 'bush', pivotUnfinished: true }).what).toBe('pivot-first')
    expect(now({ verdict: 'bush' })).toMatchObject({ what: 'plan', label: 'Press to bush it, by its plan' })
    expect(now({ verdict: 'bush', hole: { arbor: '', plate: '', bushed: true } }).what).toBe('next-hole')
  })

  test('after the last hole come the pivots, the bushes, and then the assembling', () => {
    const last = { verdict: 'leave' as const, next: undefined }
    expect(now({ ...last, pivotsWait: true, bushesWait: true }).what).toBe('pivots')
    expect(now({ ...last, bushesWait: true }).what).toBe('plan')
    expect(now(last).what).toBe('assemble')
  })
})

describe('between the plates and at the pivots', () => {
  test('free first, then the next arbor, then the pivots', () => {
    const next = { name: 'Centre', train: 'going' }
    expect(atArbor({ stop: { name: 'Third' }, tried: false, next }).what).toBe('free')
    expect(atArbor({ stop: { name: 'Third' }, tried: true, next }).what).toBe('next-arbor')
    expect(atArbor({ stop: { name: 'Third' }, tried: true, next: undefined }).what).toBe('pivots')
  })

  test('a pivot that is left unfinished is said to be so', () => {
    const next = { stop: { name: 'Centre' }, plate: 'front' }
    expect(atPivot({ next, unfinished: true })).toMatchObject({ what: 'next-pivot', hint: 'this one is not finished' })
    expect(atPivot({ next, unfinished: false }).hint).toBeUndefined()
    expect(atPivot({ next: undefined, unfinished: true }).what).toBe('bushings')
  })
})

describe('at a listening', () => {
  const now = (part: Partial<Parameters<typeof atListening>[0]>) =>
    atListening({
      status: 'listening',
      heard: true,
      first: null,
      taps: 0,
      sinceTapMs: 60_000,
      seconds: 9,
      kept: false,
      bay: 'set',
      ...part,
    })

  test('taps tell the sides apart, in rhythm; what is told, or can’t be, stops it', () => {
    expect(now({})).toMatchObject({ what: 'tap', rhythmic: true })
    expect(now({ first: 'right', taps: 3 })).toMatchObject({ what: 'tap', hint: '3 of 5' })
    expect(now({ first: 'right', taps: 5 }).what).toBe('stop')
    // A sixth tap in the rhythm is no press to stop.
    expect(now({ first: 'right', taps: 5, sinceTapMs: 900 })).toMatchObject({ what: 'tap', rhythmic: true })
    expect(now({ taps: 15 }).what).toBe('stop')
    expect(now({ heard: false })).toMatchObject({ what: 'stop', hint: '9 s heard' })
  })

  test('kept once, and then on', () => {
    expect(now({ status: 'done' }).what).toBe('keep')
    expect(now({ status: 'done', kept: true }).what).toBe('rate')
    expect(now({ status: 'done', kept: true, bay: 'arrive' }).what).toBe('back')
    expect(now({ status: 'done', kept: true, bay: 'return' }).what).toBe('set-up')
    expect(now({ status: 'idle', heard: false }).label).toBe('Press to listen')
  })
})

describe('at the power', () => {
  const now = (part: Partial<Parameters<typeof atPower>[0]>) =>
    atPower({
      parted: false,
      train: { train: 'strike' },
      proof: { key: 'slack', says: 'The click hangs slack: lift it.' },
      method: 'let down',
      unmarked: 2,
      ...part,
    })

  test('every proof by hand before a train is off, every train and mark before the plates are parted', () => {
    expect(now({})).toMatchObject({ what: 'proof', key: 'slack', label: 'Press when tried: the click hangs slack' })
    expect(now({ proof: undefined })).toMatchObject({ what: 'off', hint: 'let down' })
    expect(now({ proof: undefined, train: undefined }).what).toBe('mark')
    expect(now({ proof: undefined, train: undefined, unmarked: 0 }).what).toBe('part')
    expect(now({ parted: true }).what).toBe('take-apart')
  })
})
