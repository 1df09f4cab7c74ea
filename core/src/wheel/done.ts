import type { ClickState, WheelFound } from './found.ts'
import { stepsOfWay } from './steps.ts'
import type { WayKey } from './ways.ts'
import { springSteps } from '../spring/fitting.ts'

/** What of a visit's sheets tells what was done. */
export interface MendSheets {
  wheels: (WheelFound & { train: string; arbor: string; way: WayKey | ''; done: string[]; click: ClickState })[]
  springs: { train: string; choice: '' | 'keep' | 'stock' | 'order'; done: string[] }[]
}

const DONE: Partial<Record<WayKey, string>> = {
  dress: 'Teeth dressed',
  reverse: 'Wheel reversed on its arbor',
  'replace-teeth': 'New teeth let in',
  'used-wheel': 'A used wheel fitted',
  'new-wheel': 'A new wheel fitted',
  'fresh-track': 'Moved to a fresh track',
  'new-pinion': 'A new pinion fitted',
  'some-trundles': 'Trundles replaced',
  'all-trundles': 'All trundles replaced',
}

/** What was done to wheels, pinions and mainsprings, in sentences: only work whose every step was done. */
export function mendDone({ wheels, springs }: MendSheets): string[] {
  const worked = wheels.flatMap((w): string[] => {
    const said = w.way === '' ? undefined : DONE[w.way]
    if (said === undefined) return []
    const steps = stepsOfWay(w.way, {
      rivetMm: null,
      reversed: null,
      // A wheel without a click has fewer steps: those it has must be done.
      hasClick: w.click !== '' || w.done.includes('rivet'),
      trundlesMm: w.trundlesMm,
      shroudLoose: w.shroud === 'bad',
      teeth: [],
      moveMm: 0,
      moveWay: null,
    })
    return steps.every((s) => w.done.includes(s.key)) ? [`${said}: ${w.arbor.toLowerCase()}, ${w.train}.`] : []
  })
  const fitted = springs.flatMap((s): string[] => {
    if (s.choice !== 'stock' && s.choice !== 'order') return []
    const steps = springSteps({ end: '', fromDrawer: s.choice === 'stock', woundNmm: null, open: false })
    return steps.every((step) => s.done.includes(step.key)) ? [`A new mainspring: ${s.train}.`] : []
  })
  return [...worked, ...fitted]
}
