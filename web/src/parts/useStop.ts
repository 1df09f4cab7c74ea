import { useSearchParams } from 'react-router'

/**
 * Where a surface stands, kept in the address as `?name=key`, so that a link, a reload and a second press find it. The
 * page shows the new stop before the call that went there ends: two presses of the foot, however quick, are at two stops.
 */
export function useStop(name = 'at'): [key: string | null, go: (key: string) => void] {
  const [search, setSearch] = useSearchParams()
  return [search.get(name), (key) => setSearch({ [name]: key }, { replace: true, flushSync: true })]
}
