import type { JobPage } from '@treadle/contract'
import { PART_SIZES, type MadePart } from '@treadle/core'

interface Begun {
  name: string
  sizes: Record<string, number>
}

type Known = Record<string, number | null | undefined>

/**
 * A part to begin with, from what this job has measured: the pivot that is to be let in anew, the click rivet and the
 * collet of a wheel on the bench, the bush of a hole to be bushed. What nobody has measured begins at a usual size.
 */
export function begunFrom(part: MadePart, data: Pick<JobPage, 'pivots' | 'wheels' | 'holes'>): Begun {
  const { name, known } = knownOf(part, data)
  return {
    name,
    sizes: Object.fromEntries(PART_SIZES[part].map(({ key, startMm }) => [key, known[key] ?? startMm])),
  }
}

function knownOf(
  part: MadePart,
  { pivots, wheels, holes }: Pick<JobPage, 'pivots' | 'wheels' | 'holes'>,
): {
  name: string
  known: Known
} {
  switch (part) {
    case 'pivot': {
      const p = pivots.find((one) => one.finishedMm === null && one.arborMm !== null)
      if (!p) break
      const wanted = p.originalMm ?? p.firstMm ?? p.secondMm
      return { name: `${p.arbor}, ${p.plate}`, known: { pivotMm: wanted, arborMm: p.arborMm } }
    }
    case 'arbor': {
      const at = pivots.find((one) => one.firstMm !== null)
      if (!at) break
      const end = (plate: string) =>
        pivots.find((p) => p.arbor === at.arbor && p.train === at.train && p.plate === plate)
      return {
        name: at.arbor,
        known: { bodyMm: at.arborMm, frontPivotMm: end('front')?.firstMm, backPivotMm: end('back')?.firstMm },
      }
    }
    case 'click rivet': {
      const w = wheels.find((one) => one.rivetMm !== null)
      if (!w) break
      return {
        name: `${w.arbor}, ${w.train}`,
        known: { clickHoleMm: w.rivetMm, wheelHoleMm: w.rivetMm, wheelMm: w.thickMm },
      }
    }
    case 'collet': {
      const w = wheels.find((one) => one.part === 'wheel' && one.boreMm !== null && one.way === 'used-wheel')
      if (!w) break
      return { name: `${w.arbor}, ${w.train}`, known: { wheelBoreMm: w.boreMm, wheelMm: w.thickMm } }
    }
    case 'bush': {
      const h = holes.find((one) => !one.bushed && one.plateMm !== null && one.pivotMm !== null)
      if (!h) break
      return { name: `${h.arbor}, ${h.plate}`, known: { insideMm: h.pivotMm, plateMm: h.plateMm } }
    }
    case 'stud':
    case 'hand collet':
    case 'count wheel':
    case 'count wheel with halves':
    case 'snail':
      break
  }
  return { name: '', known: {} }
}
