import { useLayoutEffect, useRef, type RefObject } from 'react'

/** What a value is now, for a listener that was set up once: it never acts on what the page no longer shows. */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value)
  useLayoutEffect(() => {
    latest.current = value
  })
  return latest
}
