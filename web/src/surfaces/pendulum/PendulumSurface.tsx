import { blankPendulumSheet, type JobPage, type PendulumSheetRow } from '@treadle/contract'
import {
  gravityAt,
  gravityChangeSecondsPerDay,
  trainSheet,
  type LaboratorySetting,
  type Suspension,
} from '@treadle/core'
import { useMemo } from 'react'
import { v5 } from 'uuid'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Laboratory } from '../../lab/Laboratory.tsx'
import { Home } from './Home.tsx'
import { RunDown } from './RunDown.tsx'

const NAMESPACE = 'c1f6f0f2-0a1e-4d0c-9d5d-1f6b5f6e7a90'

/** The pendulum laid out in a laboratory: its parts, what changes its rate, and what a beat costs it and gets. */
export function PendulumSurface() {
  const data = useJobData()
  const { job, clock, pendulums, suspensions } = data
  const { data: settings } = useSettings()
  const rows = useRows<PendulumSheetRow>('pendulums')
  const stored = pendulums[0]
  const blank = blankPendulumSheet(stored?.id ?? v5(job.id, NAMESPACE))
  const sheet = rows.seen(blank, stored) ?? blank
  const set = (part: Partial<PendulumSheetRow>) => rows.set(blank, stored, part)
  const { pitchMm, semiArcDeg } = clock.pendulum
  const gravity = settings && gravityAt(settings.latitudeDeg, settings.altitudeM)
  const suspension = useMemo(() => springOf(suspensions[0]), [suspensions])
  const setting = useMemo<LaboratorySetting>(
    () => ({ gravity, pitchMm, semiArcDeg, suspension }),
    [gravity, pitchMm, semiArcDeg, suspension],
  )
  const beatsPerHour = clock.pendulum.beatsPerHour ?? beatsOfTrain(data)
  const home = clock.home
  const moved =
    gravity !== undefined && home?.latitudeDeg != null
      ? {
          what: 'carried to its owner',
          secondsPerDay: gravityChangeSecondsPerDay(gravity, gravityAt(home.latitudeDeg, home.altitudeM ?? 0)),
          note: `gravity at ${home.latitudeDeg.toFixed(1)}°, ${home.altitudeM ?? 0} m up`,
        }
      : null
  return (
    <Laboratory
      sheet={sheet.parts}
      onParts={(parts) => set({ parts })}
      thread={sheet}
      onThread={set}
      setting={setting}
      beatsPerHour={beatsPerHour}
      place={settings && settings.place !== '' ? `at ${settings.place}` : ''}
      moved={moved}
    >
      <RunDown sheet={sheet.parts} setting={setting} beatsPerHour={beatsPerHour} />
      <Home />
    </Laboratory>
  )
}

/** The spring that is fitted, or the one found; null while it is not measured. */
function springOf(row: JobPage['suspensions'][number] | undefined): Suspension | null {
  if (!row) return null
  const thicknessMm = row.fittedThickMm ?? row.thickMm
  const widthMm = row.fittedWidthMm ?? row.widthMm
  const freeMm = row.fittedFreeMm ?? row.freeMm
  if (thicknessMm === null || widthMm === null || freeMm === null) return null
  return { thicknessMm, widthMm, freeMm, blades: row.blades }
}

function beatsOfTrain({ trainSheets }: JobPage): number | null {
  const going = trainSheets.find((t) => t.escape)
  if (!going || going.arbors.length < 2) return null
  return trainSheet(going.arbors, going.hourly, true).beatsPerHour
}
