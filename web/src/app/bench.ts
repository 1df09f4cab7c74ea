const KEY = 'treadle-at-the-bench'

/** Who is at this bench: kept on the device, since each bench has its own. */
export function benchName(): string {
  return localStorage.getItem(KEY) ?? ''
}

export function setBenchName(name: string): void {
  localStorage.setItem(KEY, name)
  window.dispatchEvent(new Event('treadle-bench'))
}
