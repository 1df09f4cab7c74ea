import { useEffect, useState } from 'react'

/** This computer’s time, ms since 1970, told again every so many ms while the piece is shown. */
export function useNow(everyMs: number): number {
  const [now, setNow] = useState(Date.now)
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), everyMs)
    return () => clearInterval(timer)
  }, [everyMs])
  return now
}
