import { Button, Group } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Schema } from 'yup'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { meetConflict } from '../../parts/conflict.tsx'
import { wordsOf, type RowSchema } from '../../parts/fieldWords.ts'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { useRowForm, type RowForm } from '../../parts/useRowForm.ts'

interface Row extends Record<string, unknown> {
  id: string
  version: number
}

/** There is one at a time. */
export const DRAWER_FORM = 'drawer-form'

interface DrawerFormProps<R extends Row> {
  /** where its rows are kept: /PATH/ID, and what is asked again then */
  path: string
  schema: Schema<R> & RowSchema
  /** what of a row can be changed; the same object as long as the row is the same */
  row: R
  /** it is not there yet */
  isNew: boolean
  /** says which row of what, for what is half typed */
  draft: string
  /** how it is called when it goes: "Take it out" */
  takeOut: string
  onDone: () => void
  /** what else is done once it is kept */
  onKept?: (id: string) => void
  /** beside the buttons */
  more?: ReactNode
  children: (
    form: RowForm<R>['form'],
    number: (path: keyof R & string, label: string, unit?: string) => ReactNode,
  ) => ReactNode
}

/** A form over a row of the drawers: put in, changed, taken out, with two people's changes laid side by side. */
export function DrawerForm<R extends Row>(props: DrawerFormProps<R>) {
  const { path, schema, row, isNew, draft, takeOut, onDone, onKept, more, children } = props
  const change = useChange(path)
  const { form, base, forget } = useRowForm<R>(row, draft, schema)
  const leave = () => {
    forget()
    onDone()
  }
  const save = (values: R) =>
    change.mutate(
      { method: 'PUT', path: `/${path}/${values.id}`, body: values },
      {
        onSuccess: () => {
          onKept?.(values.id)
          leave()
        },
        onError: (error) => {
          const met = meetConflict(error, {
            words: wordsOf(schema),
            base: isNew ? undefined : base,
            mine: values,
            send: (merged, version) => save({ ...(merged as R), version }),
            takeTheirs: (theirs) => form.setValues(theirs as R),
          })
          if (!met) sayNotKept(error)
        },
      },
    )
  const number = (name: keyof R & string, label: string, unit = 'mm') => {
    const { onChange, ...field } = form.getInputProps(name) as {
      value: number | null
      onChange: (v: number | null) => void
      error?: string
    }
    return (
      <Figure
        key={name}
        label={label}
        draftOf={draft}
        unit={unit}
        value={field.value}
        error={field.error}
        onKeep={onChange}
        of={[schema, name]}
        atOnce
      />
    )
  }
  // What belongs to the row as a whole, and to no one field of it.
  const whole = typeof form.errors[''] === 'string' ? form.errors[''] : null
  return (
    <form id={DRAWER_FORM} onSubmit={form.onSubmit((values) => save(values))} noValidate>
      <div className={parts.fields}>{children(form, number)}</div>
      {whole !== null && <p role="alert">{whole}.</p>}
      <Group mt="sm">
        <Button type="submit" loading={change.isPending}>
          {isNew ? 'Put it in' : 'Keep it'}
        </Button>
        {more}
        <Button variant="default" onClick={leave}>
          Leave it
        </Button>
        {!isNew && (
          <Button
            variant="subtle"
            onClick={() =>
              change.mutate({ method: 'DELETE', path: `/${path}/${row.id}` }, { onSuccess: leave, onError: sayNotKept })
            }
          >
            {takeOut}
          </Button>
        )}
      </Group>
    </form>
  )
}
