import '@mantine/dates/styles.css'
import { DateInput } from '@mantine/dates'
import type { ReactNode } from 'react'

/** A day, ISO 8601, or none; typed or chosen, and shown as this workshop says days: 24 November 2026. */
export function DayField({
  label,
  description,
  value,
  error,
  onChange,
}: {
  label: string
  description?: string
  value: string
  error?: ReactNode
  onChange: (day: string) => void
}) {
  return (
    <DateInput
      label={label}
      description={description}
      placeholder="day month year"
      clearable
      clearButtonProps={{ 'aria-label': 'No day' }}
      value={value === '' ? null : value}
      error={error}
      valueFormat="D MMMM YYYY"
      weekendDays={[]}
      onChange={(day) => onChange(day ?? '')}
      size="md"
    />
  )
}
