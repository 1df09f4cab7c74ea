import { useCallback, useEffect, useRef, useState } from 'react'
import { MicrophonePickup, PickupError } from './pickup.ts'
import type { StrikesHeard, ToStrikeWorker } from './strike.worker.ts'

export interface StrikeHeardLive {
  /** the microphone is open */
  on: boolean
  heard: StrikesHeard
  /** why there is no microphone */
  sentence: string
  start: () => void
  stop: () => void
  /** what was heard so far is counted; it hears on */
  clear: () => void
}

const NOTHING: StrikesHeard = { groups: [], quietS: null }

/** Hears a strike by the microphone while it is on, in a worker. */
export function useStrikeEar(): StrikeHeardLive {
  const worker = useRef<Worker | null>(null)
  const pickup = useRef<MicrophonePickup | null>(null)
  const rate = useRef(0)
  const [on, setOn] = useState(false)
  const [heard, setHeard] = useState<StrikesHeard>(NOTHING)
  const [sentence, setSentence] = useState('')
  const close = () => {
    pickup.current?.stop()
    pickup.current = null
    worker.current?.terminate()
    worker.current = null
  }
  useEffect(() => close, [])
  const send = useCallback(
    (message: ToStrikeWorker, handOver: Transferable[] = []) => worker.current?.postMessage(message, handOver),
    [],
  )
  const open = useCallback(
    (sampleRate: number) => {
      rate.current = sampleRate
      setHeard(NOTHING)
      send({ kind: 'open', sampleRate })
    },
    [send],
  )
  const clear = useCallback(() => open(rate.current), [open])
  return {
    on,
    heard,
    sentence,
    start: () => {
      close()
      setSentence('')
      setHeard(NOTHING)
      setOn(true)
      worker.current = new Worker(new URL('./strike.worker.ts', import.meta.url), { type: 'module' })
      worker.current.onmessage = ({ data }: MessageEvent<StrikesHeard>) => setHeard(data)
      const mine = new MicrophonePickup()
      pickup.current = mine
      const over = (why: string) => {
        if (pickup.current !== mine) return
        close()
        setOn(false)
        setSentence(why)
      }
      mine
        .start({
          sound: (samples) => {
            if (pickup.current === mine) send({ kind: 'block', samples }, [samples.buffer])
          },
          lost: () => undefined,
          ended: () => over('The microphone stopped. Plug it in again, then press once more.'),
        })
        .then(open, (error: unknown) =>
          over(error instanceof PickupError ? error.message : 'The microphone could not be opened. Count by the foot.'),
        )
    },
    stop: () => {
      close()
      setOn(false)
    },
    clear,
  }
}
