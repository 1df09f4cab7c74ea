import { useMemo } from 'react'
import { CLOCK_KIND_TITLES, CLOCK_KINDS, ClockChange, type Clock, type Pendulum } from '@treadle/contract'
import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useRowForm } from '../parts/useRowForm.ts'
import { TrainPowers } from './TrainPowers.tsx'
import { Figure } from '../parts/Figure.tsx'
import { useClockChange } from './useClockChange.ts'
import styles from './ClockFigures.module.css'

const FIGURES: [field: keyof Pendulum, label: string, unit: string][] = [
  ['beatsPerHour', 'Beats an hour', ''],
  ['escapeTeeth', 'Teeth of the escape wheel', ''],
  ['lengthMm', 'Length of the pendulum', 'mm'],
  ['pitchMm', 'Pitch of the nut’s thread', 'mm'],
  ['semiArcDeg', 'Semi-arc', '°'],
  ['releaseDeg', 'Release angle', '°'],
  ['crutchLengthMm', 'Length of the crutch', 'mm'],
  ['footSpacingMm', 'Distance of the feet', 'mm'],
  ['seatSpacingMm', 'Bearers of the seat board', 'mm'],
  ['caseHeightMm', 'Height of the case', 'mm'],
  ['windsEveryDays', 'Days between windings', ''],
]

type Known = Omit<ClockChange, 'version'>

const knownOf = ({ name, kind, marks, trains, pendulum, work }: Clock): Known => ({
  name,
  kind,
  marks,
  trains,
  pendulum,
  work,
})

const WORKS = [
  ['moon', 'Moon disc'],
  ['calendar', 'Calendar'],
  ['mercury', 'Mercury in the pendulum'],
] as const

const SCHEMA = ClockChange.omit(['version'])

/** What is known of the clock itself; everything else reckons with these, and each may be left open. */
export function ClockFigures({ clock }: { clock: Clock }) {
  const save = useClockChange(clock)
  const known = useMemo(() => knownOf(clock), [clock])
  const { form, base, dirty, forget } = useRowForm(known, `clock ${clock.id}`, SCHEMA)
  const kept = () => {
    forget()
    notifications.show({ message: 'Kept.', autoClose: 2000 })
  }
  return (
    <form onSubmit={form.onSubmit((values) => save(values, kept, forget, base))} noValidate>
      <TextInput label="What you call it" {...form.getInputProps('name')} />
      <NativeSelect
        label="Kind"
        data={CLOCK_KINDS.map((k) => ({ value: k, label: CLOCK_KIND_TITLES[k] }))}
        {...form.getInputProps('kind')}
      />
      <TextInput label="Marks" {...form.getInputProps('marks')} />
      <TrainPowers trains={form.values.trains} onChange={(trains) => form.setFieldValue('trains', trains)} />
      {form.errors.trains !== undefined && <p role="alert">{form.errors.trains}</p>}
      <div className={styles.figures}>
        {FIGURES.map(([field, label, unit]) => {
          const input = form.getInputProps(`pendulum.${field}`) as {
            value: number | null | undefined
            error?: string
            onChange: (value: unknown) => void
          }
          return (
            <Figure
              key={field}
              label={label}
              draftOf={clock.id}
              unit={unit}
              value={input.value ?? null}
              error={input.error}
              onKeep={input.onChange}
              atOnce
            />
          )
        })}
      </div>
      <div className={styles.figures}>
        {clock.trains.some((t) => t.train === 'strike') && (
          <NativeSelect
            label="How the strike counts"
            value={form.values.work.strikeWork ?? ''}
            onChange={(e) => {
              const said = e.currentTarget.value
              form.setFieldValue('work.strikeWork', said === '' ? null : (said as 'rack'))
            }}
            data={[
              { value: '', label: 'not looked yet' },
              { value: 'count-wheel', label: 'count wheel' },
              { value: 'rack', label: 'rack and snail' },
            ]}
          />
        )}
        {WORKS.map(([field, label]) => (
          <Checkbox key={field} label={label} {...form.getInputProps(`work.${field}`, { type: 'checkbox' })} />
        ))}
      </div>
      <Button type="submit" variant="default" mt="sm" disabled={!dirty}>
        Keep the figures
      </Button>
    </form>
  )
}
