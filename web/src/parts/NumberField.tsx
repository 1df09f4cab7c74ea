import { NumberInput } from '@mantine/core'
import { useEffect, useState } from 'react'

/** A number that is kept when one leaves the field or presses Enter; empty means not known. */
export function NumberField({
  label,
  unit = '',
  value,
  onKeep,
  min,
  max,
  whole = false,
}: {
  label: string
  unit?: string
  value: number | null
  onKeep: (value: number | null) => void
  min?: number
  max?: number
  whole?: boolean
}) {
  const [typed, setTyped] = useState<string | number>(value ?? '')
  useEffect(() => setTyped(value ?? ''), [value])
  const number = typed === '' ? null : Number(typed)
  const wrong =
    number === null || Number.isNaN(number)
      ? null
      : (min !== undefined && number < min) || (max !== undefined && number > max)
        ? `From ${min ?? 'any'} to ${max ?? 'any'}`
        : null
  const keep = () => {
    if (wrong === null && number !== value && !Number.isNaN(number)) onKeep(number)
  }
  return (
    <NumberInput
      label={label}
      value={typed}
      onChange={setTyped}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
      error={wrong}
      hideControls
      allowDecimal={!whole}
      rightSection={unit === '' ? undefined : <span className="quiet">{unit}</span>}
      rightSectionWidth={unit.length > 3 ? 72 : 44}
    />
  )
}
