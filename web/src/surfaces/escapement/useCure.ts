import type { Cure, EscapementGeometry } from '@treadle/core'
import { useMemo } from 'react'
import { useAnswer } from '../../parts/useAnswer.ts'
import type { CureAsked } from './cure.worker.ts'

/** A drawing that has not moved for so long is at rest: while it is dragged nothing is looked for. */
const AT_REST_MS = 150

const worker = () => new Worker(new URL('./cure.worker.ts', import.meta.url), { type: 'module' })

/** What would make an escapement right, looked for beside the page; null while it is looked for, or there is none. */
export function useCure(geometry: EscapementGeometry | null, swingDeg: number, locks: boolean): Cure | null {
  const key = JSON.stringify([geometry, swingDeg, locks])
  // The key says all of what is asked.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const question: CureAsked | null = useMemo(() => geometry && { geometry, swingDeg, locks }, [key])
  const found = useAnswer<CureAsked, Cure | null>(worker, question, AT_REST_MS)
  // An answer to an older question is no answer to this one.
  return found?.of === question ? (found?.answer ?? null) : null
}
