import { useEffect, useRef, useState } from 'react'
import { useLatest } from './useLatest.ts'

/** How long after its program did not come, the server being away, a worker is asked for again. */
const AGAIN_MS = 2000

/** An answer, and what was asked. */
export interface Answer<Q, A> {
  of: Q
  answer: A
}

/**
 * What a worker answers to a question that changes with the page. Reckoned beside it, so that no press waits; the last
 * answer stands till the next one comes. While one is reckoned the latest question waits, and those between are dropped.
 *
 * @param make - the worker: it answers each message with one, as `answering` does
 * @param question - another object is another question; null asks nothing
 * @param restMs - it is asked only once it has stood so long: for what is dragged
 */
export function useAnswer<Q extends object, A>(
  make: () => Worker,
  question: Q | null,
  restMs = 0,
): Answer<Q, A> | null {
  const worker = useRef<Worker | null>(null)
  const asked = useRef<Q | null>(null)
  const waits = useRef<Q | null>(null)
  const again = useRef<ReturnType<typeof setTimeout>>(undefined)
  const latest = useLatest(question)
  const [found, setFound] = useState<Answer<Q, A> | null>(null)
  const [failed, setFailed] = useState<Error | null>(null)
  useEffect(() => {
    if (question === null) return
    const ask = (of: Q) => {
      asked.current = of
      worker.current ??= make()
      worker.current.onmessage = ({ data }: MessageEvent<A>) => {
        setFound({ of, answer: data })
        const next = waits.current
        asked.current = null
        waits.current = null
        if (next) ask(next)
      }
      worker.current.onerror = ({ message }) => {
        // An error in the reckoning has words; a program that did not come has none.
        if (message) return setFailed(new Error(message))
        worker.current?.terminate()
        worker.current = null
        clearTimeout(again.current)
        again.current = setTimeout(() => ask(latest.current ?? of), AGAIN_MS)
      }
      worker.current.postMessage(of)
    }
    const timer = setTimeout(() => {
      if (asked.current) waits.current = question
      else ask(question)
    }, restMs)
    return () => clearTimeout(timer)
    // How the worker is made never changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [question, restMs])
  useEffect(
    () => () => {
      clearTimeout(again.current)
      worker.current?.terminate()
      worker.current = null
      asked.current = null
      waits.current = null
    },
    [],
  )
  if (failed) throw failed
  return found
}
