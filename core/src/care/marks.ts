import type { Owed } from './now.ts'

/** What a person said of a thing owed: done, not needed, or to be shown again later. */
export interface OwedMark {
  kind: string
  subject: string
  state: 'done' | 'later' | 'not-needed'
  /** when it fell due as it was marked, Unix s; it comes back when that changes */
  dueS: number | null
  /** for `later`: until when, Unix s */
  untilS: number | null
}

const SAME_S = 60

/**
 * What is still owed once the marks are heeded.
 *
 * `later` hides a thing until its time; `done` and `not-needed` hide it as long as it is due when it was due then, so
 * next week's winding comes back although this week's was ticked off.
 */
export function heedMarks(owed: Owed[], marks: OwedMark[], nowS: number): Owed[] {
  return owed.filter((o) => {
    const mark = marks.find((m) => m.kind === o.kind && m.subject === o.subject)
    if (!mark) return true
    if (mark.state === 'later') return mark.untilS === null || mark.untilS <= nowS
    return !(mark.dueS === o.dueS || (mark.dueS !== null && o.dueS !== null && Math.abs(mark.dueS - o.dueS) < SAME_S))
  })
}
