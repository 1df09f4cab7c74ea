import { laidOver, touch, type Touched } from './touched.ts'
import { useSessionValue } from './useSessionValue.ts'

export interface Draft<R extends object> {
  /** the kept row, with what was typed lying over it */
  row: R
  /** the kept row, but with what stood in each touched field when it was first touched: what the change is made from */
  base: R
  dirty: boolean
  set: (part: Partial<R>) => void
  /** lets go of what was typed: it is kept now, or not wanted */
  forget: () => void
}

/**
 * What is typed into a row and not kept yet: only the fields that a person touched lie over the row, so that somebody
 * else's change of the others is seen at once. It outlives a reload and a look at another page.
 *
 * Somebody else's change of a touched field is seen when it is kept: `base` has what stood there before.
 *
 * @param key - says which row of what
 */
export function useDraft<R extends object>(kept: R, key: string): Draft<R> {
  const [touched, setTouched] = useSessionValue<Touched<R>>(`treadle-draft ${key}`, {})
  return {
    ...laidOver(kept, touched),
    set: (part) => setTouched((now) => touch(kept, now, part)),
    forget: () => setTouched({}),
  }
}
