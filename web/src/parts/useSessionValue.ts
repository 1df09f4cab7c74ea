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

/** A figure that can't be read is a number to nobody: as JSON it would come back as one that is not known. */
const UNREAD = '\u0000unread'

function written(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) => (Number.isNaN(part) ? UNREAD : part))
}

function read(text: string): unknown {
  return JSON.parse(text, (_, part: unknown) => (part === UNREAD ? NaN : part))
}

function stored<T>(key: string, empty: T): T {
  const text = sessionStorage.getItem(key)
  return text === null ? empty : (read(text) as T)
}

function store<T>(key: string, value: T, empty: T): void {
  const text = written(value)
  if (text === written(empty)) {
    sessionStorage.removeItem(key)
    return
  }
  try {
    sessionStorage.setItem(key, text)
  } catch {
    // Its room is full: it is kept while the page is open.
  }
}
