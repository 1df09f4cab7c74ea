import { same } from './clash.ts'

/** The fields of a row that a person touched: what was typed, and what stood there when it was first touched. */
export type Touched<R extends object> = { [K in keyof R]?: { typed: R[K]; from: R[K] } }

/** The row as it is typed, what it was typed from, and whether they differ. */
export function laidOver<R extends object>(kept: R, touched: Touched<R>): { row: R; base: R; dirty: boolean } {
  const row = { ...kept }
  const base = { ...kept }
  let dirty = false
  for (const key of Object.keys(touched) as (keyof R)[]) {
    const field = touched[key]
    // A field that was typed back to what is kept is touched no more.
    if (!field || same(field.typed, kept[key])) continue
    row[key] = field.typed
    base[key] = field.from
    dirty = true
  }
  return { row, base, dirty }
}

/** The touched fields after some more were typed; what stood in a field stays as it was when it was first touched. */
export function touch<R extends object>(kept: R, touched: Touched<R>, part: Partial<R>): Touched<R> {
  const next = { ...touched }
  for (const key of Object.keys(part) as (keyof R)[]) {
    const typed = part[key] as R[keyof R]
    const before = touched[key]
    const stillMine = before !== undefined && !same(before.typed, kept[key])
    next[key] = { typed, from: stillMine ? before.from : kept[key] }
  }
  return next
}
