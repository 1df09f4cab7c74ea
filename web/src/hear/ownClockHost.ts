import { ownClock, type ClockPoint, type OwnClock } from '@treadle/core'
import { useSyncExternalStore } from 'react'
import { MicrophonePickup, PickupError } from './pickup.ts'

/** What this device knows of its sound card's own clock, kept in its browser. */
export interface KeptOwnClock extends OwnClock {
  at: string
}

interface Comparing {
  on: boolean
  told: OwnClock | null
  seconds: number
  sentence: string
}

const KEPT = 'treadle-own-clock'
/** A point every so often is enough, s. */
const EVERY_S = 0.25
/** Told anew every so often, s. */
const TOLD_EVERY_S = 2

let comparing: Comparing = { on: false, told: null, seconds: 0, sentence: '' }
let kept: KeptOwnClock | null = readKept()
let pickup: MicrophonePickup | null = null
const listeners = new Set<() => void>()

function show(part: Partial<Comparing>): void {
  comparing = { ...comparing, ...part }
  for (const listener of listeners) listener()
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Comparing goes on in the background, whatever page is open. */
export const useComparing = (): Comparing => useSyncExternalStore(subscribe, () => comparing)
/** What was kept for this device; null: nothing yet. */
export const useOwnClock = (): KeptOwnClock | null => useSyncExternalStore(subscribe, () => kept)

function readKept(): KeptOwnClock | null {
  try {
    const read = JSON.parse(localStorage.getItem(KEPT) ?? 'null') as KeptOwnClock | null
    return read && Number.isFinite(read.ppm) && Number.isFinite(read.standardError) ? read : null
  } catch {
    return null
  }
}

export function startComparing(): void {
  stopComparing()
  const mine = new MicrophonePickup()
  pickup = mine
  const points: ClockPoint[] = []
  let soundS = 0
  let rate = 0
  let early = 0
  let toldS = 0
  let beganS = 0
  show({ on: true, told: null, seconds: 0, sentence: '' })
  const take = (samples: number) => {
    if (pickup !== mine) return
    const computerS = Date.now() / 1000
    if (rate === 0) {
      early += samples
      return
    }
    soundS += (samples + early) / rate
    early = 0
    if (beganS === 0) beganS = computerS
    if (computerS - (points.at(-1)?.computerS ?? 0) >= EVERY_S) points.push({ soundS, computerS })
    if (computerS - toldS < TOLD_EVERY_S) return
    toldS = computerS
    show({ told: ownClock(points), seconds: computerS - beganS })
  }
  mine
    .start({
      sound: (samples) => take(samples.length),
      lost: () => {
        // Nobody knows to a millionth how much: it is compared anew.
        points.length = 0
        beganS = 0
        show({ told: null, seconds: 0, sentence: 'Sound was lost: the computer is busy. It is compared anew.' })
      },
      ended: () => {
        if (pickup === mine) stopComparing('The microphone stopped. Plug it in again, and compare anew.')
      },
    })
    .then(
      (sampleRate) => {
        rate = sampleRate
      },
      (error: unknown) => {
        if (pickup === mine)
          stopComparing(error instanceof PickupError ? error.message : 'The microphone could not be opened.')
      },
    )
}

export function stopComparing(sentence = ''): void {
  pickup?.stop()
  pickup = null
  show({ on: false, sentence })
}

/** Keeps what was told for this device; what it returns takes it back. */
export function keepOwnClock(told: OwnClock): () => void {
  const before = kept
  write({ ...told, at: new Date().toISOString() })
  return () => write(before)
}

export function forgetOwnClock(): void {
  write(null)
}

function write(value: KeptOwnClock | null): void {
  kept = value
  if (value) localStorage.setItem(KEPT, JSON.stringify(value))
  else localStorage.removeItem(KEPT)
  show({})
}
