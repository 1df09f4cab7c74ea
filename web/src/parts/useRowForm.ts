import { useForm, type UseFormReturnType } from '@mantine/form'
import { useSessionStorage } from '@mantine/hooks'
import { useState } from 'react'
import type { Schema } from 'yup'
import { checkedBy } from './checkedBy.ts'

export interface RowForm<R> {
  form: UseFormReturnType<R>
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
  const [begun, setBegun, removeBegun] = useSessionStorage<Partial<R>>({
    key: `treadle-form ${key}`,
    defaultValue: {},
    getInitialValueInEffect: false,
  })
  const form = useForm<R>({
    initialValues: { ...row, ...begun },
    validate: checkedBy(schema),
    onValuesChange: (values) => setBegun(typedInto(values, row)),
  })
  const [base, setBase] = useState(row)
  if (base !== row) {
    setBase(row)
    form.setValues({ ...row, ...typedInto(form.values, base) })
  }
  return {
    form,
    dirty: Object.keys(typedInto(form.values, row)).length > 0,
    forget: () => {
      form.setValues(row)
      removeBegun()
    },
  }
}

/** The fields that differ from the row. */
function typedInto<R extends object>(values: R, row: R): Partial<R> {
  return Object.fromEntries(
    Object.entries(values).filter(([k, value]) => JSON.stringify(value) !== JSON.stringify(row[k as keyof R])),
  ) as Partial<R>
}
