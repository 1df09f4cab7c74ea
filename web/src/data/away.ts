import { useSyncExternalStore } from 'react'

/** How the server is: it answers; it does not; or it keeps nothing, since its disk is full. */
export type ServerState = 'here' | 'away' | 'full'

let state: ServerState = 'here'
const listeners = new Set<() => void>()

/** Notes how the server is; every page's banner follows. */
export function setServerState(value: ServerState): void {
  if (state === value) return
  state = value
  for (const listener of listeners) listener()
}

/** Notes that the server answered: of a full disk only a change that was kept says that there is room again. */
export function setServerAnswers(kept: boolean): void {
  if (state !== 'full' || kept) setServerState('here')
}

export function useServerState(): ServerState {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => state,
  )
}
