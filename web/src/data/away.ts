import { useSyncExternalStore } from 'react'

let away = false
const listeners = new Set<() => void>()

/** Notes whether the server answers; every page's banner follows. */
export function setServerAway(value: boolean): void {
  if (away === value) return
  away = value
  for (const listener of listeners) listener()
}

export function useServerAway(): boolean {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => away,
  )
}
