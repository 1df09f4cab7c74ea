import type { SpringSheetRow, SuspensionRow, Train } from '@treadle/contract'
import { hasClick, mendDone } from '@treadle/core'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import { useStop } from '../../parts/useStop.ts'
import plates from '../../job/plates/Plates.module.css'
import { MainspringSheet } from './MainspringSheet.tsx'
import { SuspensionSheet } from './SuspensionSheet.tsx'
import { WeightSheet } from './WeightSheet.tsx'

/** What drives the clock: each mainspring as it is and as it will be, the weights, and the suspension spring. */
export function SpringsSurface() {
  const { clock, springs, suspensions } = useJobData()
  const [shown, goTo] = useStop()
  const trains = clock.trains
  const stops = [...trains.map((t) => t.train), 'suspension']
  const at = Math.max(
    0,
    stops.findIndex((s) => s === shown),
  )
  const train = trains[at]
  const next = stops[at + 1]
  const list = stops.map((s, i) => (
    <button
      key={s}
      type="button"
      className={i === at ? `${plates.item} ${plates.here}` : plates.item}
      aria-pressed={i === at}
      onClick={() => goTo(s)}
    >
      <Mark {...standingOf(s, springs, suspensions)} />
      <span>
        {s === 'suspension' ? 'Suspension spring' : `${s.charAt(0).toUpperCase()}${s.slice(1)} train`}
        <small>{trains[i] ? POWER_WORDS[trains[i].power] : 'of the pendulum'}</small>
      </span>
    </button>
  ))
  const go = { next, onNext: () => next && goTo(next), onBack: () => goTo(stops[at] ?? '') }
  if (!train) return <SuspensionSheet list={list} />
  return hasClick(train.power) ? (
    <MainspringSheet key={train.train} train={train} list={list} go={go} />
  ) : (
    <WeightSheet key={train.train} train={train} list={list} go={go} />
  )
}

/** How a spring stands: not looked at, bad and not seen to yet, being fitted, or in order. */
function standingOf(
  stop: string,
  springs: SpringSheetRow[],
  suspensions: SuspensionRow[],
): { state: 'none' | 'must' | 'watch' | 'sound'; label: string } {
  const hung = suspensions[0]
  const sheet = springs.find((s) => s.train === stop)
  if (stop === 'suspension' ? !hung : !sheet) return { state: 'none', label: 'not looked at' }
  const bad = sheet
    ? sheet.set || sheet.rust || sheet.cracks || sheet.holeEnd === 'torn'
    : hung !== undefined && (hung.kinked || hung.rust || hung.twisted || hung.makeshift)
  const fitted = sheet ? mendDone({ wheels: [], springs: [sheet] }).length > 0 : (hung?.fittedThickMm ?? null) !== null
  if (fitted || !bad) return { state: 'sound', label: 'in order' }
  return sheet && sheet.choice !== '' && sheet.choice !== 'keep'
    ? { state: 'watch', label: 'being replaced' }
    : { state: 'must', label: 'to be replaced' }
}

const POWER_WORDS: Record<Train['power'], string> = {
  spring: 'mainspring in its barrel',
  'open-spring': 'open mainspring',
  fusee: 'spring and fusee',
  weight: 'weight',
  remontoire: 'remontoire',
  'chime-drum': 'mainspring of the chime',
}
