import { timeThere, whenThere } from '@treadle/core'
import { TextInput } from '@mantine/core'
import { useState } from 'react'
import { workshopZone } from '../data/workshopZone.ts'
import { DayField } from './DayField.tsx'

/** A day and a time of it by the workshop's clock; ISO 8601 with its zone, or empty: now, as it is kept. */
export function MomentField({
  label,
  value,
  onChange,
}: {
  label: string
  value: string
  onChange: (iso: string) => void
}) {
  const zone = workshopZone() ?? 'UTC'
  const [day, hour] = value === '' ? ['', ''] : timeThere(Date.parse(value) / 1000, zone).split(' ')
  const [typed, setTyped] = useState<string | null>(null)
  const set = (onDay: string, at: string) => {
    const time = /^([01]?\d|2[0-3])[:.]([0-5]\d)$/.exec(at.trim())
    if (onDay === '') {
      onChange('')
      return
    }
    const [hours, minutes] = time ? [Number(time[1]), Number(time[2])] : [12, 0]
    onChange(new Date(Math.round(whenThere(onDay, hours + minutes / 60, zone)) * 1000).toISOString())
  }
  const shown = typed ?? hour ?? ''
  const wrong = typed !== null && typed !== '' && !/^([01]?\d|2[0-3])[:.]([0-5]\d)$/.test(typed.trim())
  return (
    <>
      <DayField label={label} value={day ?? ''} onChange={(next) => set(next, shown)} />
      <TextInput
        label="at"
        aria-label={`${label}: time`}
        placeholder="9:05"
        w="5.5rem"
        value={shown}
        disabled={value === ''}
        error={wrong ? 'such as 9:05' : undefined}
        onChange={(e) => setTyped(e.currentTarget.value)}
        onBlur={() => {
          if (!wrong && typed !== null && typed !== '') set(day ?? '', typed)
          setTyped(null)
        }}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
    </>
  )
}
