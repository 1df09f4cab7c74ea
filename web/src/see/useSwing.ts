import type { AngleAt, FilmSwing, KnownOfFilm } from '@treadle/core'
import { useCallback, useEffect, useRef, useState } from 'react'
import { FilmError, type Film } from './film.ts'
import type { FromSwingWorker, ToSwingWorker } from './swing.worker.ts'

export interface SwingSeen {
  on: Film['kind'] | null
  told: { swing: FilmSwing; framesPerS: number } | null
  sentence: string
  /** time of the picture that is shown, s of its film */
  shownS: () => number
  start: (film: Film, canvas: HTMLCanvasElement) => void
  stop: () => void
  know: (known: KnownOfFilm) => void
  /** when the picture at this time of its film was taken, by the computer’s clock, ms */
  takenMs: (atS: number) => number
  /** the bob is led by hand, and where; null: it swings */
  led: Led | null
  /** the semi-arc, as it was told from time to time; s by the computer’s clock */
  arcs: AngleAt[]
  lead: (on: boolean) => void
}

interface Led {
  /** degrees from the middle of its swing, + right; null: it is not seen */
  deg: number | null
  /** all of it so far, by the computer’s clock */
  path: AngleAt[]
}

/** Of a bob that is led by hand the last minutes are held. */
const MOST_LED = 9000
const MOST_ARCS = 3600

/** Watches a pendulum in a film, in a worker, and tells its swing while it runs. */
export function useSwing(): SwingSeen {
  const worker = useRef<Worker | null>(null)
  const film = useRef<Film | null>(null)
  const atS = useRef(0)
  const [on, setOn] = useState<Film['kind'] | null>(null)
  const [told, setTold] = useState<SwingSeen['told']>(null)
  const [sentence, setSentence] = useState('')
  const [led, setLed] = useState<Led | null>(null)
  const [arcs, setArcs] = useState<AngleAt[]>([])
  const takenAtZeroMs = useRef(0)
  const send = useCallback(
    (message: ToSwingWorker, handOver: Transferable[] = []) => worker.current?.postMessage(message, handOver),
    [],
  )
  const close = useCallback(() => {
    film.current?.stop()
    film.current = null
    worker.current?.terminate()
    worker.current = null
  }, [])
  useEffect(() => close, [close])
  return {
    on,
    told,
    sentence,
    shownS: () => atS.current,
    start: (next, canvas) => {
      close()
      setTold(null)
      setLed(null)
      setArcs([])
      setSentence('')
      setOn(next.kind)
      film.current = next
      worker.current = new Worker(new URL('./swing.worker.ts', import.meta.url), { type: 'module' })
      worker.current.onmessage = ({ data }: MessageEvent<FromSwingWorker>) => {
        if (data.kind === 'led') {
          const { deg, takenMs } = data
          setLed(
            (now) =>
              now && {
                deg,
                path: deg === null ? now.path : [...now.path, { atS: takenMs / 1000, deg }].slice(-MOST_LED),
              },
          )
        } else if (data.kind === 'told') {
          setTold({ swing: data.swing, framesPerS: data.framesPerS })
          setArcs((all) => [...all, { atS: data.middleMs / 1000, deg: data.swing.semiArcDeg }].slice(-MOST_ARCS))
          setSentence('')
        } else setSentence(data.sentence)
      }
      next
        .start(canvas, (frame, takenMs) => {
          if (film.current !== next) return
          atS.current = frame.atS
          takenAtZeroMs.current = takenMs - 1000 * frame.atS
          send({ kind: 'frame', frame, takenMs }, [frame.grey.buffer])
        })
        .catch((error: unknown) => {
          if (film.current !== next) return
          close()
          setOn(null)
          setSentence(error instanceof FilmError ? error.message : 'The picture could not be opened. Use a film.')
        })
    },
    stop: () => {
      close()
      setOn(null)
      setLed(null)
    },
    takenMs: (seconds) => takenAtZeroMs.current + 1000 * seconds,
    led,
    arcs,
    lead: (on) => {
      setLed(on ? { deg: null, path: [] } : null)
      send({ kind: 'hand', on })
    },
    know: (known) => send({ kind: 'known', known }),
  }
}
