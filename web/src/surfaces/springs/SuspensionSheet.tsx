import { blankSuspension, SuspensionChange, type SuspensionRow } from '@treadle/contract'
import { FieldError, suspensionRate, unlessRefused, pendulumLengthMm, type Suspension } from '@treadle/core'
import { Checkbox, Group } from '@mantine/core'
import type { ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { signed } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'

const NAMESPACE = 'a0c2a9e8-1f55-4a36-8d2a-cc0a3f6b9e12'

/** The suspension spring: as found, what is fitted, and what that does to the rate. */
export function SuspensionSheet({ list }: { list: ReactNode }) {
  const { job, clock, suspensions } = useJobData()
  const navigate = useNavigate()
  const rows = useRows<SuspensionRow>('suspensions')
  const stored = suspensions[0]
  const blank = blankSuspension(stored?.id ?? v5(job.id, NAMESPACE))
  const sheet = rows.seen(blank, stored) ?? blank
  const set = (part: Partial<SuspensionChange>) => rows.set(blank, stored, part)
  usePedalAction({
    label: 'Press to go on to the escapement',
    press: () => void navigate(`/jobs/${job.id}/escapement`),
  })
  const field = (
    key: 'blades' | 'thickMm' | 'widthMm' | 'freeMm' | 'massKg' | 'fittedThickMm' | 'fittedWidthMm' | 'fittedFreeMm',
    label: string,
    unit = 'mm',
  ) => (
    <Figure
      key={key}
      label={label}
      draftOf="suspension"
      unit={unit}
      value={sheet[key]}
      of={[SuspensionChange, key]}
      onKeep={(value) => (key === 'blades' ? set({ blades: value ?? 2 }) : set({ [key]: value }))}
    />
  )
  const lengthMm =
    clock.pendulum.lengthMm ??
    (clock.pendulum.beatsPerHour === null ? null : pendulumLengthMm(clock.pendulum.beatsPerHour))
  const rate = rateChange(sheet, lengthMm)
  const bad = (
    [
      ['kinked', 'Kinked'],
      ['rust', 'Rusted'],
      ['twisted', 'Twisted, or blades unequal'],
      ['makeshift', 'Makeshift'],
    ] as const
  ).filter(([key]) => sheet[key])
  return (
    <div className={parts.columns}>
      <section>
        <h2>Suspension spring</h2>
        <div className={parts.fields}>
          {field('blades', 'Blades', '')}
          {field('thickMm', 'Thick')}
          {field('widthMm', 'Width of a blade')}
          {field('freeMm', 'Free length')}
          {field('massKg', 'Mass of the bob', 'kg')}
        </div>
        <Group>
          {(
            [
              ['kinked', 'Kinked'],
              ['rust', 'Rusted'],
              ['twisted', 'Twisted, or blades unequal'],
              ['makeshift', 'Makeshift'],
            ] as const
          ).map(([key, label]) => (
            <Checkbox
              key={key}
              size="md"
              label={label}
              checked={sheet[key]}
              onChange={(e) => set({ [key]: e.currentTarget.checked })}
            />
          ))}
        </Group>
        {bad.length > 0 && (
          <p className={parts.next}>
            <Mark state="must" label="replace" /> <b>Replace it</b> by the same thickness and length:{' '}
            {bad.map(([, label]) => label.toLowerCase()).join(', ')}. Never let the rod hang by a twisted blade.
          </p>
        )}
        <h3 className={parts.next}>What is fitted</h3>
        <div className={parts.fields}>
          {field('fittedThickMm', 'Fitted, thick')}
          {field('fittedWidthMm', 'Fitted, width')}
          {field('fittedFreeMm', 'Fitted, free length')}
        </div>
        {rate === null ? (
          <p className={parts.say}>
            With its figures, the bob’s mass and the pendulum’s length it is told what another one does to the rate.
          </p>
        ) : (
          <p>
            <Mark state={Math.abs(rate) < 5 ? 'sound' : 'watch'} /> The clock would {rate >= 0 ? 'gain' : 'lose'} about{' '}
            <b>{signed(rate, 0)} s/day</b>{' '}
            {(sheet.fittedThickMm ?? 0) > (sheet.thickMm ?? 0)
              ? 'with the thicker one, and swing stiffly'
              : (sheet.fittedThickMm ?? 0) < (sheet.thickMm ?? 0)
                ? 'with the thinner one, which is weaker'
                : 'with it'}
            . The rod’s length is not changed for that before the rate is heard.
          </p>
        )}
      </section>
      <section>{list}</section>
    </div>
  )
}

function rateChange(s: SuspensionChange, lengthMm: number | null): number | null {
  const { thickMm, widthMm, freeMm, massKg, blades } = s
  if (thickMm === null || widthMm === null || freeMm === null || massKg === null || lengthMm === null) return null
  if (s.fittedThickMm === null) return null
  const old: Suspension = { thicknessMm: thickMm, widthMm, freeMm, blades }
  const fitted: Suspension = {
    blades,
    thicknessMm: s.fittedThickMm,
    widthMm: s.fittedWidthMm ?? widthMm,
    freeMm: s.fittedFreeMm ?? freeMm,
  }
  const rate = unlessRefused(() => suspensionRate(old, fitted, massKg, Math.max(1, lengthMm - freeMm)))
  return rate instanceof FieldError ? null : rate
}
