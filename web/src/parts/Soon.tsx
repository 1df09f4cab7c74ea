import { startTransition, useEffect, useState, type ReactNode } from 'react'

/**
 * What comes a frame after the rest of its page: where many fields or a long list stand below what is read first, that
 * is painted at once and does not wait for them.
 */
export function Soon({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState(false)
  useEffect(() => {
    const frame = requestAnimationFrame(() => startTransition(() => setShown(true)))
    return () => cancelAnimationFrame(frame)
  }, [])
  return shown ? children : null
}
