import { useDeferredValue, type ReactNode } from 'react'

/**
 * What comes a moment after the rest of its page: where many fields or a long list stand below what is read first, that
 * is shown at once and does not wait for them.
 */
export function Soon({ children }: { children: ReactNode }) {
  return useDeferredValue(true, false) ? children : null
}
