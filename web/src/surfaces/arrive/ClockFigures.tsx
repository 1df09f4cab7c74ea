import { ClockChange, type Clock, type Pendulum } from '@treadle/contract'
import { Button, NumberInput, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { notifications } from '@mantine/notifications'
import { yupResolver } from 'mantine-form-yup-resolver'
import { useEffect } from 'react'
import { sentenceOf, useChange } from '../../app/queries.ts'
import { useConflict } from '../../parts/useConflict.tsx'
import styles from './Arrive.module.css'

const FIGURES: [field: keyof Pendulum, label: string, unit: string][] = [
  ['beatsPerHour', 'Beats an hour', ''],
  ['escapeTeeth', 'Teeth of the escape wheel', ''],
  ['lengthMm', 'Length of the pendulum', 'mm'],
  ['pitchMm', 'Pitch of the nut’s thread', 'mm'],
  ['semiArcDeg', 'Semi-arc', '°'],
  ['releaseDeg', 'Release angle', '°'],
  ['crutchLengthMm', 'Length of the crutch', 'mm'],
  ['footSpacingMm', 'Distance of the feet', 'mm'],
  ['caseHeightMm', 'Height of the case', 'mm'],
  ['windsEveryDays', 'Days between windings', ''],
]

/** What is known of the clock itself; everything else reckons with these, and each may be left open. */
export function ClockFigures({ clock }: { clock: Clock }) {
  const change = useChange('clocks', 'clock')
  const conflict = useConflict({ name: 'Name', marks: 'Marks', pendulum: 'Figures' })
  const form = useForm<Omit<ClockChange, 'version'>>({
    initialValues: { name: clock.name, kind: clock.kind, marks: clock.marks, pendulum: clock.pendulum },
    validate: yupResolver(ClockChange.omit(['version'])),
  })
  useEffect(() => {
    form.setInitialValues({ name: clock.name, kind: clock.kind, marks: clock.marks, pendulum: clock.pendulum })
    form.reset()
    // The form follows the row, not itself.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [clock.version])
  const save = (values: Omit<ClockChange, 'version'>, version = clock.version) => {
    const body = { ...values, version }
    change.mutate(
      { method: 'PATCH', path: `/clocks/${clock.id}`, body },
      {
        onSuccess: () => notifications.show({ message: 'Kept.', autoClose: 2000 }),
        onError: (error) => {
          if (
            !conflict.meet(
              error,
              body,
              (now) => save(values, now),
              () => form.reset(),
            )
          )
            notifications.show({ color: 'red', title: 'Not kept', message: sentenceOf(error) })
        },
      },
    )
  }
  return (
    <form onSubmit={form.onSubmit((values) => save(values))} noValidate>
      {conflict.dialog}
      <TextInput label="Marks" {...form.getInputProps('marks')} />
      <div className={styles.figures}>
        {FIGURES.map(([field, label, unit]) => {
          const input = form.getInputProps(`pendulum.${field}`) as {
            value: number | null
            error?: string
            onChange: (value: unknown) => void
          }
          return (
            <NumberInput
              key={field}
              label={label}
              rightSection={unit === '' ? undefined : <span className="quiet">{unit}</span>}
              rightSectionWidth={48}
              hideControls
              {...input}
              value={input.value ?? ''}
              onChange={(value) => input.onChange(value === '' ? null : Number(value))}
            />
          )
        })}
      </div>
      <Button type="submit" variant="default" mt="sm" disabled={!form.isDirty()}>
        Keep the figures
      </Button>
    </form>
  )
}
