import { useSearchParams } from 'react-router'

/**
 * Where a surface stands, kept in the address as `?name=key`, so that a link, a reload and a second press find it; empty:
 * where it stands by itself. The
 * page shows the new stop before the call that went there ends: two presses of the foot, however quick, are at two stops.
 */
export function useStop(name = 'at'): [key: string | null, go: (key: string) => void] {
  const [search, setSearch] = useSearchParams()
  const go = (key: string) =>
    setSearch(
      (was) => {
        const next = new URLSearchParams(was)
        if (key === '') next.delete(name)
        else next.set(name, key)
        return next
      },
      { replace: true, flushSync: true },
    )
  return [search.get(name), go]
}
