import { useSessionStorage } from '@mantine/hooks'

export interface Draft<R extends object> {
  /** the kept row, with what was typed lying over it */
  row: R
  /** only what a person touched */
  touched: Partial<R>
  dirty: boolean
  set: (part: Partial<R>) => void
  /** lets go of what was typed: it is kept now, or not wanted */
  forget: () => void
}

/**
 * What is typed into a row and not kept yet: only the fields that a person touched lie over the row, so that somebody
 * else's change of the others is seen at once. It outlives a reload and a look at another page.
 *
 * @param key - says which row of what; another key is another draft
 */
export function useDraft<R extends object>(kept: R, key: string): Draft<R> {
  const [touched, setTouched] = useSessionStorage<Partial<R>>({
    key: `treadle-draft ${key}`,
    defaultValue: {},
    getInitialValueInEffect: false,
  })
  // A field that was typed back to what is kept is touched no more.
  const differing = Object.fromEntries(
    Object.entries(touched).filter(([k, value]) => !alike(value, kept[k as keyof R])),
  ) as Partial<R>
  return {
    row: { ...kept, ...differing },
    touched: differing,
    dirty: Object.keys(differing).length > 0,
    set: (part) => setTouched((now) => ({ ...now, ...part })),
    forget: () => setTouched({}),
  }
}

const alike = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
