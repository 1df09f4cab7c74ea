import type { Laboratory, SheetPart } from '@treadle/core'
import styles from './Lab.module.css'

/** A label keeps so far from the one above it. */
const APART = 21

interface Labelled {
  lab: Laboratory
  threadUpMm: number | null
  threadDownMm: number | null
}

interface Label {
  key: string
  at: number
  words: string
  className?: string | undefined
}

/** What is written beside a part; nothing beside rod and bob. */
export function labelOf(
  p: SheetPart,
  i: number,
  y: (mm: number) => number,
  { lab, threadUpMm, threadDownMm }: Labelled,
): Label[] {
  const at = y(p.atMm ?? 0)
  const quiet = styles.quiet
  switch (p.kind) {
    case 'nut': {
      const travel =
        threadUpMm !== null || threadDownMm !== null
          ? `nut, ${threadUpMm ?? '?'} mm up, ${threadDownMm ?? '?'} down`
          : 'nut'
      return [{ key: `nut${i}`, at, words: travel, className: quiet }]
    }
    case 'tray':
      return [
        {
          key: `tray${i}`,
          at,
          words: `1 g: ${lab.secondsPerDayPerGram >= 0 ? '+' : '−'}${Math.abs(lab.secondsPerDayPerGram).toFixed(2)} s a day`,
          className: styles.told,
        },
      ]
    case 'weight':
      return [{ key: `weight${i}`, at, words: `${p.massG ?? '?'} g`, className: quiet }]
    case 'jar':
      return [
        {
          key: `jar${i}`,
          at: y((p.atMm ?? 0) - (p.lengthMm ?? 0)),
          words: `${p.material}, ${(p.lengthMm ?? 0).toFixed(1)} high`,
          className: quiet,
        },
      ]
    case 'sleeve':
      return [
        {
          key: `sleeve${i}`,
          at: y(lab.footMm * 0.9),
          words: `${p.material} sleeve, ${(p.lengthMm ?? 0).toFixed(1)}`,
          className: quiet,
        },
      ]
    case 'gridiron':
      return [
        {
          key: `grid${i}`,
          at: y((p.lengthMm ?? 0) / 2),
          words: `${p.pairs ?? '?'} pairs of ${p.material}`,
          className: quiet,
        },
      ]
    default:
      return []
  }
}

/** Labels beside one another moved apart, so that each can be read; none below the drawing. */
export function spread(labels: Label[], height: number): Label[] {
  const inOrder = [...labels].sort((a, b) => a.at - b.at)
  let last = -Infinity
  const down = inOrder.map((l) => {
    last = Math.max(l.at, last + APART)
    return { ...l, at: last }
  })
  let next = height - 8 + APART
  return down
    .reverse()
    .map((l) => {
      next = Math.min(l.at, next - APART)
      return { ...l, at: next }
    })
    .reverse()
}
