import { lanternTrundles } from './lantern.ts'
import type { WheelFound } from './found.ts'
import type { Way, WayKey } from './ways.ts'

/** A way out that was chosen, as the estimate asks for it. */
export interface ChosenWay {
  title: string
  pieces: number
  price: string
  /** it has to be ordered once the owner agrees */
  order: boolean
}

interface Chosen {
  wheels: (WheelFound & { arbor: string; train: string; way: WayKey | '' })[]
  springs: {
    train: string
    choice: '' | 'keep' | 'stock' | 'order'
    fittedWidthMm: number | null
    fittedThickMm: number | null
  }[]
  escapements: { way: WayKey | '' }[]
}

const ORDERED = new Set<WayKey>(['new-wheel', 'new-pinion', 'exchange-platform', 'send-platform'])

/** What was chosen for wheels, pinions, mainsprings and a platform, with the workshop’s prices; what is left costs nothing. */
export function waysChosen({ wheels, springs, escapements }: Chosen, table: readonly Way[]): ChosenWay[] {
  const of = (key: WayKey | '') => table.find((w) => w.key === key)
  const lines = wheels.flatMap((w): ChosenWay[] => {
    const way = of(w.way)
    if (!way || way.key === 'leave') return []
    return [
      {
        title: `${way.title}: ${w.arbor.toLowerCase()}, ${w.train}`,
        pieces: piecesOf(way.key, w),
        price: way.price,
        order: ORDERED.has(way.key),
      },
    ]
  })
  const platform = escapements.flatMap((e): ChosenWay[] => {
    const way = of(e.way)
    return way ? [{ title: way.title, pieces: 1, price: way.price, order: ORDERED.has(way.key) }] : []
  })
  const fitted = springs.flatMap((s): ChosenWay[] => {
    const way = of('new-spring')
    if (!way || (s.choice !== 'stock' && s.choice !== 'order')) return []
    const size =
      s.fittedWidthMm !== null && s.fittedThickMm !== null ? `, ${s.fittedWidthMm} × ${s.fittedThickMm} mm` : ''
    return [{ title: `${way.title}: ${s.train}${size}`, pieces: 1, price: way.price, order: s.choice === 'order' }]
  })
  return [...lines, ...fitted, ...platform]
}

function piecesOf(key: WayKey, found: WheelFound): number {
  if (key === 'replace-teeth') return Math.max(1, found.faults.filter((f) => f.fault !== 'worn').length)
  if (key !== 'some-trundles') return 1
  const all = found.trundlesMm.filter((mm): mm is number => mm !== null)
  return all.length < 3 ? 1 : Math.max(1, lanternTrundles(all).replace.length)
}
