/** Does these one after another whenever the page has nothing else to do; gives what ends it. */
export function whenIdle(works: (() => Promise<unknown>)[]): () => void {
  let over = false
  const next = () => {
    const work = works.shift()
    if (over || !work) return
    const go = () => {
      // What can't be fetched now is fetched when it is wanted.
      if (!over) void work().then(next, () => undefined)
    }
    if ('requestIdleCallback' in window) requestIdleCallback(go)
    else setTimeout(go, NO_IDLE_MS)
  }
  next()
  return () => {
    over = true
  }
}

/** A browser that does not say when it is idle is given this long. */
const NO_IDLE_MS = 1000
