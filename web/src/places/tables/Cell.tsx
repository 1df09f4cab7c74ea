import { TextInput } from '@mantine/core'
import { useEffect, useState } from 'react'

/** A cell of words. */
export function Cell({
  label,
  value,
  onChange,
  wide,
}: {
  label: string
  value: string
  onChange: (v: string) => void
  wide?: boolean
}) {
  return (
    <TextInput
      aria-label={label}
      size="sm"
      value={value}
      onChange={(e) => onChange(e.currentTarget.value)}
      style={{ minWidth: wide ? 'min(21rem, 26vw)' : undefined }}
    />
  )
}

/** A cell of a number, typed freely and taken when it is one. */
export function NumberCell({
  label,
  value,
  onChange,
}: {
  label: string
  value: number
  onChange: (v: number) => void
}) {
  const [typed, setTyped] = useState(String(value))
  useEffect(() => setTyped((now) => (Number(now.replace(',', '.')) === value ? now : String(value))), [value])
  const number = Number(typed.replace(',', '.'))
  const wrong = typed.trim() === '' || !Number.isFinite(number)
  return (
    <TextInput
      aria-label={label}
      size="sm"
      w="5.5rem"
      inputMode="decimal"
      value={typed}
      error={wrong}
      onChange={(e) => {
        setTyped(e.currentTarget.value)
        const next = Number(e.currentTarget.value.replace(',', '.'))
        if (e.currentTarget.value.trim() !== '' && Number.isFinite(next)) onChange(next)
      }}
    />
  )
}
