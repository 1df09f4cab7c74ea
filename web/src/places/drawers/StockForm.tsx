import { useMemo } from 'react'
import { StockChange, type StockKind, type StockRow } from '@treadle/contract'
import { Button, Group, TextInput } from '@mantine/core'
import { useRowForm } from '../../parts/useRowForm.ts'
import { v7 as uuid } from 'uuid'
import { sayNotKept, useChange } from '../../data/queries.ts'
import parts from '../../parts/parts.module.css'
import { meetConflict } from '../../parts/conflict.tsx'
import { wordsOf } from '../../parts/fieldWords.ts'
import { Figure } from '../../parts/Figure.tsx'

const WORDS = wordsOf(StockChange)
const SIZES = {
  measuredMm: 'Measured',
  widthMm: 'Width',
  thickMm: 'Thick',
  outsideMm: 'Outside',
  insideMm: 'Inside',
  lengthMm: 'Length',
} as const

function sizesOf(kind: StockKind): (keyof typeof SIZES)[] {
  if (kind === 'cutter' || kind === 'reamer') return ['measuredMm']
  if (kind === 'mainspring' || kind === 'suspension spring') return ['widthMm', 'thickMm', 'lengthMm']
  return kind === 'bush' ? ['outsideMm', 'insideMm', 'lengthMm'] : ['outsideMm', 'lengthMm']
}

/** What of a row can be changed; a blank one where there is none yet. */
function changeOf(kind: StockKind, row: StockRow | undefined): StockChange {
  const { reserved: _, ...kept } = row ?? {
    id: uuid(),
    version: 0,
    kind,
    name: '',
    material: '',
    outsideMm: null,
    insideMm: null,
    lengthMm: null,
    measuredMm: null,
    widthMm: null,
    thickMm: null,
    count: 1,
    lowAt: 0,
    drawer: '',
    reserved: 0,
  }
  return kept
}

/** Puts something in a drawer, or changes what is there. */
export function StockForm({ kind, row, onDone }: { kind: StockKind; row: StockRow | undefined; onDone: () => void }) {
  const change = useChange('stock')
  const kept = useMemo(() => changeOf(kind, row), [kind, row])
  const { form, base, forget } = useRowForm(kept, `stock ${row?.id ?? kind}`, StockChange)
  const leave = () => {
    forget()
    onDone()
  }
  const save = (values: StockChange) =>
    change.mutate(
      { method: 'PUT', path: `/stock/${values.id}`, body: values },
      {
        onSuccess: leave,
        onError: (error) => {
          const met = meetConflict(error, {
            words: WORDS,
            base: row && base,
            mine: values,
            send: (merged, version) => save({ ...(merged as StockChange), version }),
            takeTheirs: (theirs) => form.setValues(theirs),
          })
          if (!met) sayNotKept(error)
        },
      },
    )
  const number = (path: keyof StockChange, label: string, unit = 'mm') => {
    const { onChange, ...props } = form.getInputProps(path) as {
      value: number | null
      onChange: (v: number | null) => void
      error?: string
    }
    return (
      <Figure
        key={path}
        label={label}
        draftOf={row?.id ?? kind}
        unit={unit}
        value={props.value}
        error={props.error}
        onKeep={onChange}
        of={[StockChange, path]}
        atOnce
      />
    )
  }
  // What belongs to the row as a whole, and to no one field of it.
  const whole = typeof form.errors[''] === 'string' ? form.errors[''] : null
  return (
    <form onSubmit={form.onSubmit(save)} noValidate>
      <div className={parts.fields}>
        {sizesOf(kind).map((size) => number(size, SIZES[size]))}
        <TextInput label="Material" {...form.getInputProps('material')} />
        <TextInput
          label={kind === 'cutter' || kind === 'reamer' ? 'Stamped' : 'Name'}
          {...form.getInputProps('name')}
        />
        {number('count', 'Count', '')}
        {number('lowAt', 'Low at', '')}
        <TextInput label="Drawer" {...form.getInputProps('drawer')} />
      </div>
      {whole !== null && <p role="alert">{whole}.</p>}
      <Group mt="sm">
        <Button type="submit" loading={change.isPending}>
          {row ? 'Keep it' : 'Put it in'}
        </Button>
        <Button variant="default" onClick={leave}>
          Leave it
        </Button>
        {row && (
          <Button
            variant="subtle"
            onClick={() => change.mutate({ method: 'DELETE', path: `/stock/${row.id}` }, { onSuccess: onDone })}
          >
            Take it out of the drawers
          </Button>
        )}
      </Group>
    </form>
  )
}
