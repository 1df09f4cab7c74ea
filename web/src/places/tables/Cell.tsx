import { TextInput } from '@mantine/core'
import { Figure } from '../../parts/Figure.tsx'

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

/** A cell of a number, taken as it is typed. */
export function NumberCell({
  label,
  value,
  onChange,
}: {
  label: string
  value: number
  onChange: (v: number) => void
}) {
  return <Figure quiet label={label} size="sm" w="5.5rem" value={value} onKeep={(v) => onChange(v ?? NaN)} atOnce />
}

/** The headings of a table. */
export function Headings({ of }: { of: string[] }) {
  return (
    <thead>
      <tr>
        {of.map((h) => (
          <th key={h} scope="col">
            {h}
          </th>
        ))}
      </tr>
    </thead>
  )
}
