import { useForm, type UseFormReturnType } from '@mantine/form'
import { useState } from 'react'
import type { Schema } from 'yup'
import { checkedBy } from './checkedBy.ts'
import { same } from './clash.ts'
import { laidOver, touch, type Touched } from './touched.ts'
import { useLatest } from './useLatest.ts'
import { useSessionValue } from './useSessionValue.ts'

export interface RowForm<R> {
  form: UseFormReturnType<R>
  /** the row, but with what stood in each touched field when it was first touched */
  base: R
  dirty: boolean
  /** lets go of what was typed: it is kept now, or not wanted */
  forget: () => void
}

/**
 * A form over a row, checked by the row’s schema: what a person typed lies over the row, field by field, and everything
 * else follows the row when somebody else changes it. What is half typed outlives a reload.
 *
 * @param row - the same object as long as the row is the same
 * @param key - says which row of what
 */
export function useRowForm<R extends Record<string, unknown>>(row: R, key: string, schema: Schema<R>): RowForm<R> {
  const [touched, setTouched] = useSessionValue<Touched<R>>(`treadle-form ${key}`, {})
  const latest = useLatest(row)
  const form = useForm<R>({
    initialValues: laidOver(row, touched).row,
    validate: checkedBy(schema),
    onValuesChange: (values) => setTouched((now) => touch(latest.current, now, typedInto(values, now, latest.current))),
  })
  const [shown, setShown] = useState(row)
  if (shown !== row) {
    setShown(row)
    form.setValues(laidOver(row, touched).row)
  }
  const { base, dirty } = laidOver(row, touched)
  return {
    form,
    base,
    dirty,
    forget: () => {
      setTouched({})
      form.setValues(latest.current)
      setTouched({})
    },
  }
}

/** The fields that a person has in hand: touched before, or other than the row. */
function typedInto<R extends object>(values: R, touched: Touched<R>, row: R): Partial<R> {
  return Object.fromEntries(
    Object.entries(values).filter(([k, value]) => k in touched || !same(value, row[k as keyof R])),
  ) as Partial<R>
}
