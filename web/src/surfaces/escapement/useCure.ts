import type { Cure, EscapementGeometry } from '@treadle/core'
import { useEffect, useRef, useState } from 'react'
import type { CureAsked, CureFound } from './cure.worker.ts'

/** A drawing that has not moved for so long is at rest. */
const AT_REST_MS = 150

/** What would make an escapement right, looked for beside the page; null while it is looked for, or there is none. */
export function useCure(geometry: EscapementGeometry | null, swingDeg: number, locks: boolean): Cure | null {
  const worker = useRef<Worker | null>(null)
  const asked = useRef(0)
  const [found, setFound] = useState<{ of: string; cure: Cure | null } | null>(null)
  const key = JSON.stringify([geometry, swingDeg, locks])
  useEffect(() => {
    if (!geometry) return
    const made = worker.current ?? new Worker(new URL('./cure.worker.ts', import.meta.url), { type: 'module' })
    worker.current = made
    asked.current += 1
    const id = asked.current
    // While it is dragged nothing is looked for: each move would stand in line behind the last.
    made.onmessage = ({ data }: MessageEvent<CureFound>) => {
      // An answer to an older question is no answer to this one.
      if (data.id === asked.current) setFound({ of: key, cure: data.cure })
    }
    made.onerror = () => setFound({ of: key, cure: null })
    const timer = setTimeout(() => made.postMessage({ id, geometry, swingDeg, locks } satisfies CureAsked), AT_REST_MS)
    return () => clearTimeout(timer)
    // The key says all of what is asked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key])
  useEffect(() => () => worker.current?.terminate(), [])
  return found?.of === key ? found.cure : null
}
