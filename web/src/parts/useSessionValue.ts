import { useState } from 'react'

/**
 * Something half done that outlives a reload and a look at another page, as long as this window is open.
 *
 * @param key - says of what; another key is another value, at once
 * @param empty - what it is when nothing was begun; never stored
 */
export function useSessionValue<T>(key: string, empty: T): [value: T, set: (next: T | ((now: T) => T)) => void] {
  const [held, setHeld] = useState(() => ({ key, value: stored(key, empty) }))
  const here = held.key === key ? held : { key, value: stored(key, empty) }
  if (here !== held) setHeld(here)
  const set = (next: T | ((now: T) => T)) => {
    // The store is the truth: of several changes in one turn each is made on the last.
    const value = next instanceof Function ? next(stored(key, empty)) : next
    store(key, value, empty)
    setHeld({ key, value })
  }
  return [here.value, set]
}

function stored<T>(key: string, empty: T): T {
  const text = sessionStorage.getItem(key)
  return text === null ? empty : (JSON.parse(text) as T)
}

function store<T>(key: string, value: T, empty: T): void {
  const text = JSON.stringify(value)
  if (text === JSON.stringify(empty)) {
    sessionStorage.removeItem(key)
    return
  }
  try {
    sessionStorage.setItem(key, text)
  } catch {
    // Its room is full: it is kept while the page is open.
  }
}
