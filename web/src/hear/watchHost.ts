import type { WatchChange, WatchMark, WatchMinuteKept, WatchRow, WatchTold } from '@treadle/contract'
import { useSyncExternalStore } from 'react'
import { v5 } from 'uuid'
import { queryClient, sendAsChange, sentenceOf } from '../data/queries.ts'
import { MicrophonePickup, PickupError, type Pickup } from './pickup.ts'
import type { FromWatchWorker, ToWatchWorker } from './watch.worker.ts'

/**
 * The watch that this device keeps, whatever page is open: its microphone, its worker, and what is not told to the server
 * yet, all of which outlives the pages, and what can the browser's window too.
 */
export interface WatchHost {
  /** the watch that this device listens for; null: none */
  watch: Pick<WatchRow, 'id' | 'jobId' | 'beganAt'> | null
  status: 'idle' | 'opening' | 'listening' | 'refused'
  /** s listened since the window was opened, and of how many where it is a file */
  seconds: number
  ofSeconds: number | null
  /** s of sound that the computer was too busy for */
  lostS: number
  /** why nothing is heard */
  sentence: string
  /** minutes that the server has not acknowledged yet */
  untold: number
}

type Kept = WatchChange & { jobId: string }

const KEPT = 'treadle-watch'
const UNTOLD = 'treadle-watch-untold'
const LOCK = 'treadle-watch'
const AT_ONCE = 120

let state: WatchHost = {
  watch: null,
  status: 'idle',
  seconds: 0,
  ofSeconds: null,
  lostS: 0,
  sentence: '',
  untold: 0,
}
const listeners = new Set<() => void>()
let worker: Worker | null = null
let pickup: Pickup | null = null
let kept: Kept | null = null
let untold: WatchTold = { minutes: [], marks: [] }
/** Sound about what is odd, till the server knows what that is. */
let sounds: { mark: string; wav: ArrayBuffer }[] = []
let sending = false
let wakeLock: WakeLockSentinel | null = null
let letGoOfLock: (() => void) | null = null

function show(part: Partial<WatchHost>): void {
  state = { ...state, ...part }
  for (const listener of listeners) listener()
}

export function useWatchHost(): WatchHost {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => state,
  )
}

/** Begins a watch on a clock, by a pickup of this device. Refused where this device keeps one already. */
export async function beginWatch(watch: Kept, by: Pickup): Promise<void> {
  if (kept || !begin(watch) || !(await isTold(watch))) return
  await listen(by)
}

/** Hears a recording of any length as a watch that began when it did. */
export async function watchFile(watch: Kept, file: File): Promise<void> {
  if (kept || !begin(watch) || !(await isTold(watch))) return
  openWorker()
  show({ status: 'listening', seconds: 0 })
  send({ kind: 'file', watchId: watch.id, file, options: optionsOf(watch) })
}

/** The watch is over: its last minute is heard out and told. */
export function endWatch(): void {
  pickup?.stop()
  pickup = null
  if (worker) send({ kind: 'finish' })
  else over()
}

/** Goes on with the watch of before the page was loaded, in one window of this browser only. */
export function resumeWatch(): void {
  const watch = read<Kept>(KEPT)
  if (!watch || kept) return
  void navigator.locks?.request(LOCK, { ifAvailable: true }, async (lock) => {
    if (!lock || kept) return
    take(watch, false)
    untold = readUntold()
    const sinceS = sinceBegan(watch)
    mark({ kind: 'silent', fromS: Math.max(0, lastHeardS()), toS: sinceS, note: 'the page was not open' }, watch.id)
    flush()
    if (watch.pickup === 'microphone') await listen(new MicrophonePickup())
    else over()
    await held()
  })
}

/** A new watch, with nothing left of an earlier one; not while that one’s minutes still wait for the server. */
function begin(watch: Kept): boolean {
  if (untold.minutes.length > 0 || untold.marks.length > 0) {
    show({ sentence: 'The last watch is still being written down: wait until the server answers.' })
    return false
  }
  localStorage.removeItem(UNTOLD)
  localStorage.removeItem(`${UNTOLD}-last`)
  take(watch)
  return true
}

/** Whether the server has taken the watch; where it refuses it nothing is heard for it. */
async function isTold(watch: Kept): Promise<boolean> {
  if (await tellWatch(watch)) return true
  kept = null
  localStorage.removeItem(KEPT)
  letGoOfLock?.()
  letGoOfLock = null
  show({ watch: null, status: 'refused' })
  return false
}

function take(watch: Kept, lock = true): void {
  kept = watch
  localStorage.setItem(KEPT, JSON.stringify(watch))
  untold = { minutes: [], marks: [] }
  sounds = []
  show({
    watch: { id: watch.id, jobId: watch.jobId, beganAt: watch.beganAt },
    status: 'opening',
    seconds: 0,
    ofSeconds: null,
    lostS: 0,
    sentence: '',
    untold: 0,
  })
  if (lock) void navigator.locks?.request(LOCK, held)
}

/** Until the watch is over: no other window goes on with it. */
function held(): Promise<void> {
  return new Promise((resolve) => {
    letGoOfLock = resolve
  })
}

async function listen(by: Pickup): Promise<void> {
  const watch = kept
  if (!watch) return
  openWorker()
  pickup = by
  const early: (() => void)[] = []
  let open = false
  const inTurn = (deliver: () => void) => {
    if (pickup !== by) return
    if (open) deliver()
    else early.push(deliver)
  }
  try {
    const sampleRate = await by.start({
      sound: (samples) => inTurn(() => send({ kind: 'block', samples }, [samples.buffer])),
      lost: (seconds) =>
        inTurn(() => {
          show({ lostS: state.lostS + seconds })
          send({ kind: 'lost', seconds })
        }),
      ended: () => {
        if (pickup === by) refuse('The microphone stopped. Plug it in again, and go on with the watch.')
      },
    })
    send({ kind: 'open', watchId: watch.id, sampleRate, sinceS: sinceBegan(watch), options: optionsOf(watch) })
    open = true
    for (const deliver of early) deliver()
    show({ status: 'listening', sentence: '' })
    await keepAwake()
  } catch (error) {
    refuse(error instanceof PickupError ? error.message : 'The pickup could not be opened.')
  }
}

/** After a microphone that stopped or was refused: the same watch goes on. */
export function listenAgain(): void {
  if (kept && state.status === 'refused') {
    show({ status: 'opening', sentence: '' })
    void listen(new MicrophonePickup())
  }
}

function refuse(sentence: string): void {
  pickup?.stop()
  pickup = null
  closeWorker()
  show({ status: 'refused', sentence })
}

function openWorker(): void {
  closeWorker()
  worker = new Worker(new URL('./watch.worker.ts', import.meta.url), { type: 'module' })
  worker.onerror = () => refuse('The watch has stopped by a fault of the page. Go on with it.')
  worker.onmessage = ({ data }: MessageEvent<FromWatchWorker>) => {
    switch (data.kind) {
      case 'told':
        show({ seconds: data.seconds, ofSeconds: data.ofSeconds })
        add(data.minutes, data.marks)
        return
      case 'sound':
        sounds.push(data)
        return
      case 'over':
        over()
        return
      case 'refused':
        refuse(data.sentence)
    }
  }
}

function closeWorker(): void {
  worker?.terminate()
  worker = null
}

function send(message: ToWatchWorker, handOver: Transferable[] = []): void {
  worker?.postMessage(message, handOver)
}

function over(): void {
  const watch = kept
  if (!watch) return
  closeWorker()
  kept = null
  localStorage.removeItem(KEPT)
  letGoOfLock?.()
  letGoOfLock = null
  void wakeLock?.release()
  wakeLock = null
  const endedAt =
    watch.pickup === 'file'
      ? new Date(Date.parse(watch.beganAt) + 1000 * Math.max(state.seconds, lastHeardS())).toISOString()
      : new Date().toISOString()
  show({ watch: null, status: state.status === 'refused' ? 'refused' : 'idle' })
  void untilTold(watch).then(() => tellWatch({ ...watch, version: 1, endedAt }))
}

function add(minutes: WatchMinuteKept[], marks: WatchMark[]): void {
  untold = { minutes: [...untold.minutes, ...minutes], marks: [...untold.marks, ...marks] }
  writeUntold()
  flush()
}

function mark(part: Pick<WatchMark, 'kind' | 'fromS' | 'toS' | 'note'>, watchId: string): void {
  add([], [{ id: v5(`${part.kind} ${Math.round(part.fromS)}`, watchId), blows: null, bird: false, ...part }])
}

function flush(): void {
  const watch = kept
  if (!watch || sending) return
  void untilTold(watch)
}

/** Sends what the server does not know yet, part after part; while it is away this waits. */
async function untilTold(watch: Kept): Promise<void> {
  if (sending) return
  sending = true
  try {
    while (untold.minutes.length > 0 || untold.marks.length > 0) {
      const part: WatchTold = { minutes: untold.minutes.slice(0, AT_ONCE), marks: untold.marks.slice(0, AT_ONCE) }
      await sendAsChange({ method: 'PUT', path: `/jobs/${watch.jobId}/watches/${watch.id}/told`, body: part })
      untold = { minutes: untold.minutes.slice(part.minutes.length), marks: untold.marks.slice(part.marks.length) }
      writeUntold()
      const told = sounds.filter((s) => part.marks.some((m) => m.id === s.mark))
      sounds = sounds.filter((s) => !told.includes(s))
      for (const { mark: name, wav } of told)
        await sendAsChange({
          method: 'PUT',
          path: `/jobs/${watch.jobId}/watches/${watch.id}/marks/${name}/sound`,
          body: new Blob([wav], { type: 'audio/wav' }),
        })
      await queryClient.invalidateQueries({ queryKey: ['watch', watch.id] })
    }
  } catch (error) {
    show({ sentence: `Not kept: ${sentenceOf(error)}` })
    // Refused for good, and over: it must not keep the next watch waiting.
    if (kept?.id !== watch.id) {
      untold = { minutes: [], marks: [] }
      writeUntold()
    }
  } finally {
    sending = false
  }
}

async function tellWatch({ jobId, ...body }: Kept): Promise<boolean> {
  try {
    await sendAsChange({ method: 'PUT', path: `/jobs/${jobId}/watches/${body.id}`, body })
    await queryClient.invalidateQueries({ queryKey: ['job', jobId] })
    return true
  } catch (error) {
    show({ sentence: `Not kept: ${sentenceOf(error)}` })
    return false
  }
}

function optionsOf({ beatsPerHour, ticks, ppm }: Kept) {
  return { beatsPerHour, ticks, ppm }
}

function sinceBegan({ beganAt }: Kept): number {
  return Math.max(0, (Date.now() - Date.parse(beganAt)) / 1000)
}

/** What this browser kept, or null where that is nothing, or spoilt. */
function read<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as T | null
  } catch {
    return null
  }
}

/** What was not told before the page was closed stays on this device until it is. */
function writeUntold(): void {
  show({ untold: untold.minutes.length })
  const last = untold.minutes.at(-1)
  try {
    localStorage.setItem(UNTOLD, JSON.stringify(untold))
    if (last) localStorage.setItem(`${UNTOLD}-last`, String(last.fromS + last.seconds))
  } catch {
    // The device's room for it is full: what is in the window is still told.
  }
}

function readUntold(): WatchTold {
  return read<WatchTold>(UNTOLD) ?? { minutes: [], marks: [] }
}

function lastHeardS(): number {
  return Number(localStorage.getItem(`${UNTOLD}-last`) ?? 0)
}

/** The screen stays lit while it listens, where the browser can: a computer that sleeps hears nothing. */
async function keepAwake(): Promise<void> {
  try {
    wakeLock = (await navigator.wakeLock?.request('screen')) ?? null
  } catch {
    // Refused, on battery or in a hidden window: then it may sleep, and the gap is told.
  }
}

document.addEventListener('visibilitychange', () => {
  if (document.visibilityState === 'visible' && kept && state.status === 'listening') void keepAwake()
})
