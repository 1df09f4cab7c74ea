import { useSyncExternalStore } from 'react'

/** The file this page began with; none where pages are not built, as while they are worked on. */
const own = () =>
  document.querySelector<HTMLScriptElement>('script[type="module"][src^="/assets/"]')?.src.split('/').at(-1)

let renewed = false
const listeners = new Set<() => void>()

/** Notes with which file the server's pages begin by now: where it is another, the shop has got a new version. */
export function notePages(begins: string | null): void {
  const began = own()
  if (renewed || begins === null || began === undefined || begins === began) return
  renewed = true
  for (const listener of listeners) listener()
}

/** Whether the server has newer pages than this one. */
export function useNewPages(): boolean {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => renewed,
  )
}

/** Whether a part of this page could not be fetched: most likely it is another version's by now. */
export function isPartMissing(error: unknown): boolean {
  return (
    error instanceof Error &&
    /dynamically imported module|module script failed|unable to preload css|error loading/i.test(error.message)
  )
}
