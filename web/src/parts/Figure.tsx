import { readFigure, tenTimesOff, type FigureUnit } from '@treadle/core'
import { TextInput, type TextInputProps } from '@mantine/core'
import { memo, useMemo, useState, type KeyboardEvent, type ReactNode } from 'react'
import { useLocation } from 'react-router'
import { boundsOfField } from './boundsOfField.ts'
import type { RowSchema } from './fieldWords.ts'
import { onward } from './onward.ts'
import { figure } from './say.ts'
import { useLatest } from './useLatest.ts'
import { useSessionValue } from './useSessionValue.ts'

interface FigureProps extends Pick<TextInputProps, 'size' | 'w' | 'mt' | 'description' | 'placeholder'> {
  label: string
  /** what it is kept in; it may be typed in another */
  unit?: string
  value: number | null
  onKeep: (value: number | null) => void
  /** the field of a row: its bounds and whether it is whole are its schema's */
  of?: [schema: RowSchema, field: string]
  min?: number
  max?: number
  whole?: boolean
  /** figures of the same kind on the same thing: one that is ten times off them is asked about once */
  beside?: (number | null)[]
  /** the label is read out and not shown */
  quiet?: boolean
  /** taken with each key and not when one leaves it: where what stands beside is reckoned as one types */
  atOnce?: boolean
  /** of which row or part it is, where the page’s address does not say: for what is half typed */
  draftOf?: string
  error?: ReactNode
  disabled?: boolean
}

/**
 * One figure of a row. It is kept when one leaves the field or presses Enter, which goes to the next figure; a caliper’s
 * own Enter does the same. Empty means not known. What is half typed outlives a reload.
 */
export function Figure({
  label,
  unit = '',
  value,
  onKeep,
  of,
  beside = [],
  quiet = false,
  atOnce = false,
  draftOf = '',
  error,
  disabled,
  ...rest
}: FigureProps) {
  const { min, max, whole, size, w, mt, description, placeholder } = { ...boundsOfField(of), ...defined(rest) }
  const { pathname, search } = useLocation()
  const [typed, setTyped] = useSessionValue<string | null>(
    `treadle-figure ${pathname}${search} ${label} ${draftOf}`,
    null,
  )
  const [asked, setAsked] = useState<string | null>(null)
  // What was typed stands until the row has it; then the row is shown, and whatever it becomes later.
  const [sent, setSent] = useState<{ value: number | null; from: number | null } | null>(null)
  if (sent && (Object.is(sent.value, value) || !Object.is(sent.from, value))) {
    setSent(null)
    setTyped(null)
  }
  const open = typed !== null
  const text = open ? typed : value === null || Number.isNaN(value) ? '' : figure(value, 5)
  const now = readFigure(text, asUnit(unit), { named: unit === '' ? [] : [unit] })
  const wrong = !now.read ? now.sentence : now.value === null ? null : outside(now.value, { min, max, whole })
  const near = now.read && now.value !== null && open ? tenTimesOff(now.value, beside) : null
  const question =
    asked === text && near !== null && now.read
      ? `${figure(now.value ?? 0)}? The others are near ${figure(near)}. Enter keeps it as it is.`
      : null
  /** says whether one may go on: it is kept, or it was so already */
  const keep = (): boolean => {
    if (!open) return true
    if (!now.read || wrong !== null) return false
    if (near !== null && asked !== text) {
      setAsked(text)
      return false
    }
    if (now.value === value) setTyped(null)
    else if (!sent || sent.value !== now.value) {
      setSent({ value: now.value, from: value })
      onKeep(now.value)
    }
    return true
  }
  const type = (next: string) => {
    setSent(null)
    setTyped(next)
    if (!atOnce) return
    // What can’t be read is no figure: the form that it stands in then refuses it by name.
    const figureNow = readFigure(next, asUnit(unit), { named: unit === '' ? [] : [unit] })
    onKeep(figureNow.read ? figureNow.value : NaN)
  }
  const latest = useLatest({ keep, type })
  const hands: Hands = useMemo(
    () => ({ keep: () => latest.current.keep(), type: (next) => latest.current.type(next) }),
    [latest],
  )
  return (
    <Box
      {...{ label, quiet, unit, text, size, w, mt, description, placeholder, disabled, hands }}
      error={error ?? (wrong === null ? question : `${label}: ${wrong}`)}
    />
  )
}

interface Hands {
  keep: () => boolean
  type: (next: string) => void
}

interface BoxProps extends Pick<
  FigureProps,
  'label' | 'quiet' | 'unit' | 'size' | 'w' | 'mt' | 'description' | 'placeholder' | 'error' | 'disabled'
> {
  text: string
  hands: Hands
}

/** What is seen of a figure: drawn anew only where that changed, as a page has dozens and a press changes one. */
const Box = memo(function Box({ label, quiet, unit = '', text, hands, ...rest }: BoxProps) {
  return (
    <TextInput
      {...(quiet ? { 'aria-label': label } : { label })}
      {...rest}
      value={text}
      data-figure=""
      inputMode={unit === 's' ? 'text' : 'decimal'}
      autoComplete="off"
      onChange={(e) => hands.type(e.currentTarget.value)}
      onFocus={(e) => e.currentTarget.select()}
      onBlur={hands.keep}
      onKeyDown={(e) => onEnter(e, hands.keep)}
      rightSection={unit === '' ? undefined : <span className="quiet">{unit}</span>}
      rightSectionWidth={unit.length > 3 ? 72 : 44}
    />
  )
})

function onEnter(e: KeyboardEvent<HTMLInputElement>, keep: () => boolean): void {
  if (e.key !== 'Enter') return
  if (!keep()) {
    e.preventDefault()
    return
  }
  // In a form of its own with nothing to go on to, Enter sends the form.
  if (onward(e.currentTarget)) e.preventDefault()
}

const READ: FigureUnit[] = ['mm', 'm', '°', 's', 'kg', '']

/** A unit that nothing is turned into is only a word after the figure. */
function asUnit(unit: string): FigureUnit {
  return READ.find((u) => u === unit) ?? ''
}

function outside(value: number, { min, max, whole }: { min?: number; max?: number; whole?: boolean }): string | null {
  if (whole && !Number.isInteger(value)) return 'it must be a whole number'
  if ((min === undefined || value >= min) && (max === undefined || value <= max)) return null
  if (min === undefined) return `at most ${figure(max ?? 0)}`
  return max === undefined ? `from ${figure(min)}` : `from ${figure(min)} to ${figure(max)}`
}

function defined<T extends object>(props: T): Partial<T> {
  return Object.fromEntries(Object.entries(props).filter(([, v]) => v !== undefined)) as Partial<T>
}
