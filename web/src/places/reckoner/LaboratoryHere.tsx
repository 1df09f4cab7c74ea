import { Pendulum, SuspensionChange } from '@treadle/contract'
import { gravityAt, gravityChangeSecondsPerDay, type SheetPart } from '@treadle/core'
import { useMemo } from 'react'
import { useSettings } from '../../data/queries.ts'
import { Laboratory } from '../../lab/Laboratory.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { Fold } from '../../parts/Fold.tsx'
import parts from '../../parts/parts.module.css'
import { useSessionValue } from '../../parts/useSessionValue.ts'

interface Bench {
  sheet: SheetPart[]
  threadUpMm: number | null
  threadDownMm: number | null
  beatsPerHour: number | null
  pitchMm: number | null
  semiArcDeg: number | null
  thickMm: number | null
  widthMm: number | null
  freeMm: number | null
  blades: number | null
  toLatitudeDeg: number | null
  toAltitudeM: number | null
}

const EMPTY: Bench = {
  sheet: [],
  threadUpMm: null,
  threadDownMm: null,
  beatsPerHour: 3600,
  pitchMm: null,
  semiArcDeg: null,
  thickMm: null,
  widthMm: null,
  freeMm: null,
  blades: 1,
  toLatitudeDeg: null,
  toAltitudeM: null,
}

/** The laboratory without a job: any pendulum, kept while the window is open. */
export function LaboratoryHere() {
  const { data: settings } = useSettings()
  const [bench, setBench] = useSessionValue<Bench>('treadle-laboratory', EMPTY)
  const set = (part: Partial<Bench>) => setBench({ ...bench, ...part })
  const gravity = settings && gravityAt(settings.latitudeDeg, settings.altitudeM)
  const { pitchMm, semiArcDeg, thickMm, widthMm, freeMm, blades, toLatitudeDeg, toAltitudeM } = bench
  const setting = useMemo(
    () => ({
      gravity,
      pitchMm,
      semiArcDeg,
      suspension:
        thickMm === null || widthMm === null || freeMm === null
          ? null
          : { thicknessMm: thickMm, widthMm, freeMm, blades: blades ?? 1 },
    }),
    [gravity, pitchMm, semiArcDeg, thickMm, widthMm, freeMm, blades],
  )
  const field = (key: Exclude<keyof Bench, 'sheet'>, label: string, unit: string, bounds: object) => (
    <Figure
      key={key}
      label={label}
      unit={unit}
      draftOf="laboratory"
      value={bench[key]}
      onKeep={(value) => set({ [key]: value })}
      {...bounds}
    />
  )
  return (
    <section>
      <div className={parts.fields}>
        {field('beatsPerHour', 'Beats an hour, of the train', '', { of: [Pendulum, 'beatsPerHour'] })}
        {field('pitchMm', 'Pitch of the nut', 'mm', { of: [Pendulum, 'pitchMm'] })}
        {field('semiArcDeg', 'Semi-arc', '°', { of: [Pendulum, 'semiArcDeg'] })}
      </div>
      <Fold title="Its suspension spring, and where it is carried">
        <div className={parts.fields}>
          {field('thickMm', 'Spring, thick', 'mm', { of: [SuspensionChange, 'thickMm'] })}
          {field('widthMm', 'Width of a blade', 'mm', { of: [SuspensionChange, 'widthMm'] })}
          {field('freeMm', 'Free length', 'mm', { of: [SuspensionChange, 'freeMm'] })}
          {field('blades', 'Blades', '', { of: [SuspensionChange, 'blades'] })}
          {field('toLatitudeDeg', 'Carried to latitude', '°', { min: -90, max: 90 })}
          {field('toAltitudeM', 'Above the sea there', 'm', { min: -430, max: 6000 })}
        </div>
      </Fold>
      <Laboratory
        sheet={bench.sheet}
        onParts={(sheet) => set({ sheet })}
        thread={bench}
        onThread={set}
        setting={setting}
        beatsPerHour={bench.beatsPerHour}
        place={settings && settings.place !== '' ? `at ${settings.place}` : ''}
        moved={
          gravity === undefined || toLatitudeDeg === null
            ? null
            : {
                what: `carried to ${toLatitudeDeg}°`,
                secondsPerDay: gravityChangeSecondsPerDay(gravity, gravityAt(toLatitudeDeg, toAltitudeM ?? 0)),
                note: 'gravity there',
              }
        }
      />
    </section>
  )
}
