import type { FilmSwing, KnownOfFilm } from '@treadle/core'
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
}

/** Watches a pendulum in a film, in a worker, and tells its swing while it runs. */
export function useSwing(): SwingSeen {
  const worker = useRef<Worker | null>(null)
  const film = useRef<Film | null>(null)
  const atS = useRef(0)
  const [on, setOn] = useState<Film['kind'] | null>(null)
  const [told, setTold] = useState<SwingSeen['told']>(null)
  const [sentence, setSentence] = useState('')
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
      setSentence('')
      setOn(next.kind)
      film.current = next
      worker.current = new Worker(new URL('./swing.worker.ts', import.meta.url), { type: 'module' })
      worker.current.onmessage = ({ data }: MessageEvent<FromSwingWorker>) => {
        if (data.kind === 'told') {
          setTold({ swing: data.swing, framesPerS: data.framesPerS })
          setSentence('')
        } else setSentence(data.sentence)
      }
      next
        .start(canvas, (frame) => {
          if (film.current !== next) return
          atS.current = frame.atS
          send({ kind: 'frame', frame }, [frame.grey.buffer])
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
    },
    know: (known) => send({ kind: 'known', known }),
  }
}
