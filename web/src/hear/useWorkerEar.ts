import { useCallback, useEffect, useRef, useState } from 'react'
import { useLatest } from '../parts/useLatest.ts'
import type { FromEar, ToEar } from './messages.ts'
import { MicrophonePickup, PickupError, type Pickup } from './pickup.ts'

export interface WorkerEar<Heard> {
  /** the pickup is open */
  on: boolean
  heard: Heard
  /** when the sound began, by the computer's clock, ms */
  startedMs: number
  /** why there is no microphone */
  sentence: string
  start: (pickup?: Pickup) => void
  stop: () => void
  /** what was heard so far is done with; it hears on */
  clear: () => void
}

/**
 * Hears by a worker of its own while it is on, and says what that worker says.
 *
 * @param otherwise - what is done without a microphone
 */
export function useWorkerEar<Options, Heard>(
  makeWorker: () => Worker,
  options: Options,
  nothing: Heard,
  otherwise: string,
): WorkerEar<Heard> {
  const worker = useRef<Worker | null>(null)
  const pickup = useRef<Pickup | null>(null)
  const rate = useRef(0)
  const turn = useRef(0)
  const latest = useLatest({ options, nothing })
  const [on, setOn] = useState(false)
  const [heard, setHeard] = useState<Heard>(nothing)
  const [startedMs, setStartedMs] = useState(0)
  const [sentence, setSentence] = useState('')
  const close = () => {
    pickup.current?.stop()
    pickup.current = null
    worker.current?.terminate()
    worker.current = null
  }
  useEffect(() => close, [])
  const send = useCallback(
    (message: ToEar<Options>, handOver: Transferable[] = []) => worker.current?.postMessage(message, handOver),
    [],
  )
  const open = useCallback(
    (sampleRate: number) => {
      const { options: how, nothing: empty } = latest.current
      rate.current = sampleRate
      turn.current++
      setHeard(empty)
      setStartedMs(Date.now())
      send({ kind: 'open', sampleRate, options: how, turn: turn.current })
    },
    [latest, send],
  )
  const clear = useCallback(() => open(rate.current), [open])
  return {
    on,
    heard,
    startedMs,
    sentence,
    start: (mine = new MicrophonePickup()) => {
      close()
      setSentence('')
      setHeard(nothing)
      setOn(true)
      worker.current = makeWorker()
      worker.current.onmessage = ({ data }: MessageEvent<FromEar<Heard>>) => {
        // What was on its way as it was cleared was done with: counted again it would be what nobody heard.
        if (data.turn === turn.current) setHeard(data.heard)
      }
      pickup.current = mine
      const over = (why: string) => {
        if (pickup.current !== mine) return
        close()
        setOn(false)
        setSentence(why)
      }
      let opened = false
      mine
        .start({
          sound: (samples) => {
            if (opened && pickup.current === mine) send({ kind: 'block', samples }, [samples.buffer])
          },
          lost: (seconds) => {
            if (opened && pickup.current === mine) send({ kind: 'lost', seconds })
          },
          ended: () => over('The microphone stopped. Plug it in again, then press once more.'),
        })
        .then(
          (sampleRate) => {
            if (pickup.current !== mine) return
            open(sampleRate)
            opened = true
          },
          (error: unknown) =>
            over(error instanceof PickupError ? error.message : `The microphone could not be opened. ${otherwise}`),
        )
    },
    stop: () => {
      close()
      setOn(false)
    },
    clear,
  }
}
