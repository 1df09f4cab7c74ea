const KEY = 'treadle-pedal-key'

/** The key that this bench's own pedal sends, taught in Settings; '' while only the usual ones are used. */
export function pedalKey(): string {
  return localStorage.getItem(KEY) ?? ''
}

export function teachPedalKey(key: string): void {
  localStorage.setItem(KEY, key)
}
