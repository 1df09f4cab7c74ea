import {
  sideOfFirst,
  type Hearing,
  type ListenOptions,
  type Side,
  type SideFinding,
  type StrikeGroup,
} from '@treadle/core'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useLatest } from '../parts/useLatest.ts'
import type { FromWorker, ToWorker } from './messages.ts'
import { useOwnClock } from './ownClockHost.ts'
import { decodeByBrowser, PickupError, type Pickup } from './pickup.ts'

export interface Heard {
  result: Hearing
  /** the last minute of sound, when it is over */
  wav: ArrayBuffer | null
  pickup: 'microphone' | 'file' | 'practice'
  fileName: string
  remark: string
  /** strikings in a file, where they were asked for */
  strikes: StrikeGroup[]
}

export interface Listening {
  status: 'idle' | 'listening' | 'reading' | 'done' | 'refused'
  heard: Heard | null
  /** what is said while nothing is heard yet, or why nothing can be */
  sentence: string
  seconds: number
  taps: number
  side: SideFinding
  /** when the recording began, by the computer's clock, ms */
  startedMs: number
  start: (pickup: Pickup) => void
  open: (file: File) => void
  stop: () => void
  /** a press as the bob stood at the right-hand end; what it returns takes it back */
  tap: (atMs: number) => () => void
  choose: (side: Side | null) => void
  /** sound was lost lately: the computer is busy, and drawing waits for listening */
  hurried: boolean
  /** what beats here instead of the count that was given, as it was refused */
  instead: number | null
  /** the tooth that a person named as it dropped; null: none */
  chalk: number | null
  /** a press as the chalked tooth drops */
  nameTooth: (atMs: number) => void
  /** it is kept elsewhere now, and need not be found again */
  letGo: () => void
}

/** What was heard and not kept yet, by whose it is: one may leave to give a length, and find it again. */
const left = new Map<
  string,
  { heard: Heard; taps: number[]; chosen: Side | null; seconds: number; startedMs: number }
>()

const HURRIED_MS = 5000

const UNTOLD: SideFinding = { first: null, taps: 0, sureness: 0 }

/**
 * Listens to one clock at a time, in a worker, and tells what is heard as it is heard.
 *
 * @param strikes - those in a file are counted too
 * @param uncorrected - nothing that is known of this device’s sound card is taken out
 */
export function useListening(
  options: ListenOptions,
  whose = '',
  { strikes = false, uncorrected = false } = {},
): Listening {
  const [before] = useState(() => left.get(whose))
  const worker = useRef<Worker | null>(null)
  const session = useRef(0)
  const pickup = useRef<Pickup | null>(null)
  const source = useRef<Pick<Heard, 'pickup' | 'fileName'>>({ pickup: 'microphone', fileName: '' })
  const latestOptions = useLatest(options)
  const latestOwn = useLatest(useOwnClock())
  const started = useRef(0)
  const [startedMs, setStartedMs] = useState(before?.startedMs ?? 0)
  const [status, setStatus] = useState<Listening['status']>(before ? 'done' : 'idle')
  const [heard, setHeard] = useState<Heard | null>(before?.heard ?? null)
  const [sentence, setSentence] = useState('')
  const [lostAtMs, setLostAtMs] = useState(0)
  const [instead, setInstead] = useState<number | null>(null)
  const [seconds, setSeconds] = useState(before?.seconds ?? 0)
  const [taps, setTaps] = useState<number[]>(before?.taps ?? [])
  const [chalkS, setChalkS] = useState<number | null>(null)
  const [chosen, setChosen] = useState<Side | null>(before?.chosen ?? null)

  const refuse = useCallback((why: string) => {
    pickup.current?.stop()
    pickup.current = null
    setSentence(why)
    setStatus('refused')
  }, [])

  const send = useCallback(
    (message: ToWorker, handOver: Transferable[] = []) => {
      if (!worker.current) {
        worker.current = new Worker(new URL('./listen.worker.ts', import.meta.url), { type: 'module' })
        worker.current.onerror = () => refuse('The listening has stopped. Press to listen again.')
        worker.current.onmessage = ({ data }: MessageEvent<FromWorker>) => {
          if (data.session !== session.current) return
          if (data.kind === 'refused') {
            refuse(data.sentence)
            return
          }
          setSeconds(data.seconds)
          const { result } = data
          if (result.heard)
            setHeard({
              result,
              wav: data.wav ?? null,
              remark: data.remark,
              strikes: data.strikes ?? [],
              ...source.current,
            })
          if (!result.heard) {
            setInstead(result.insteadBeatsPerHour ?? null)
            setSentence([data.remark, result.sentence].filter(Boolean).join(' '))
            // What was heard on the way does not stand when the whole says otherwise.
            if (data.final || result.reason === 'lost') setHeard(null)
          }
          if (data.final) setStatus(result.heard ? 'done' : 'refused')
        }
      }
      worker.current.postMessage(message, handOver)
    },
    [refuse],
  )
  useEffect(
    () => () => {
      pickup.current?.stop()
      worker.current?.terminate()
      worker.current = null
    },
    [],
  )

  useEffect(() => {
    if (whose === '') return
    if (status === 'done' && heard) left.set(whose, { heard, taps, chosen, seconds, startedMs })
    else if (status !== 'idle') left.delete(whose)
  }, [whose, status, heard, taps, chosen, seconds, startedMs])

  const begin = (next: Listening['status']) => {
    pickup.current?.stop()
    pickup.current = null
    session.current++
    setHeard(null)
    setSentence('')
    setSeconds(0)
    setTaps([])
    setChosen(null)
    setChalkS(null)
    setStatus(next)
  }

  const finish = (cut: boolean) => {
    pickup.current?.stop()
    pickup.current = null
    send({ kind: 'finish', session: session.current, cut })
  }

  const told = heard && taps.length > 0 ? tapsSay(heard.result, taps) : UNTOLD
  const side: SideFinding = chosen === null ? told : { first: chosen, taps: taps.length, sureness: 1 }
  return {
    status,
    heard,
    sentence,
    seconds,
    taps: taps.length,
    side,
    startedMs,
    start: (next) => {
      begin('listening')
      source.current = { pickup: next.kind, fileName: '' }
      pickup.current = next
      const mine = session.current
      // What comes before the sample rate is known waits for it.
      const early: (() => void)[] = []
      let earlySamples = 0
      let open = false
      const inTurn = (deliver: () => void) => {
        if (mine !== session.current) return
        if (open) deliver()
        else early.push(deliver)
      }
      next
        .start({
          sound: (samples) => {
            if (!open) earlySamples += samples.length
            inTurn(() => send({ kind: 'block', session: mine, samples }, [samples.buffer]))
          },
          lost: (seconds) =>
            inTurn(() => {
              setLostAtMs(Date.now())
              send({ kind: 'lost', session: mine, seconds })
            }),
          ended: () => {
            if (mine !== session.current || pickup.current !== next) return
            if (open || early.length > 0) inTurn(() => finish(true))
            else refuse('The microphone stopped before it gave any sound. Plug it in again, then press once more.')
          },
        })
        .then(
          (sampleRate) => {
            started.current = Date.now() - (1000 * earlySamples) / sampleRate
            setStartedMs(started.current)
            // The practice clock has no sound card; what is known of this device’s is of its own microphone alone.
            const given = latestOptions.current
            const card = latestOwn.current
            const options =
              next.kind === 'practice' || uncorrected
                ? { ...given, ppm: 0 }
                : { ...given, ppm: card?.ppm ?? given.ppm, ppmError: card?.standardError }
            send({ kind: 'open', session: mine, sampleRate, options })
            open = true
            for (const deliver of early) deliver()
          },
          (error: unknown) => {
            if (mine === session.current)
              refuse(error instanceof PickupError ? error.message : 'The pickup could not be opened. Use a sound file.')
          },
        )
    },
    open: (file) => {
      begin('reading')
      source.current = { pickup: 'file', fileName: file.name }
      const mine = session.current
      const read = async () => {
        const bytes = await file.arrayBuffer()
        const wave = bytes.byteLength === 0 || new TextDecoder().decode(bytes.slice(0, 4)) === 'RIFF'
        if (wave) {
          send({ kind: 'wav', session: mine, bytes, options: latestOptions.current, strikes }, [bytes])
          return
        }
        const { samples, sampleRate } = await decodeByBrowser(bytes)
        send({ kind: 'samples', session: mine, samples, sampleRate, options: latestOptions.current, strikes }, [
          samples.buffer,
        ])
      }
      read().catch((error: unknown) => refuse(error instanceof PickupError ? error.message : 'The file can’t be read.'))
    },
    stop: () => {
      if (status === 'listening') finish(false)
    },
    tap: (atMs) => {
      const atS = (atMs - started.current) / 1000
      setTaps((all) => [...all, atS])
      return () => setTaps((all) => all.filter((t) => t !== atS))
    },
    choose: setChosen,
    // Told anew with each verdict, a few times a second.
    hurried: lostAtMs > 0 && startedMs + 1000 * seconds - lostAtMs < HURRIED_MS,
    instead: status === 'refused' ? instead : null,
    chalk: heard && chalkS !== null ? toothAt(heard.result, chalkS, options.teeth) : null,
    nameTooth: (atMs) => setChalkS((atMs - started.current) / 1000),
    letGo: () => left.delete(whose),
  }
}

/** A press comes so long after what it means, s. */
const REACTION_S = 0.2

/** The tooth, counted from the first beat that is judged now, that dropped as somebody pressed. */
function toothAt(result: Hearing, pressedS: number, teeth: number | undefined): number | null {
  const first = result.beats[0]
  if (!first || teeth === undefined) return null
  const beatS = (result.intervalsMs[0] + result.intervalsMs[1]) / 2000
  const index = first.index + Math.round((pressedS - REACTION_S - first.atS) / beatS)
  return (((Math.floor(index / 2) % teeth) + teeth) % teeth) + 1
}

function tapsSay(result: Hearing, taps: number[]): SideFinding {
  const first = result.beats.find((b) => b.index % 2 === 0)
  if (!first) return UNTOLD
  const [firstToSecond, secondToFirst] = result.intervalsMs
  return sideOfFirst(taps, first.atS, firstToSecond / 1000, (firstToSecond + secondToFirst) / 1000)
}
