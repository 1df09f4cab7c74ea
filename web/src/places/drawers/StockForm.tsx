import { StockChange, type StockKind, type StockRow } from '@treadle/contract'
import { Button, Group, NumberInput, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { checkedBy } from '../../parts/checkedBy.ts'
import { v7 as uuid } from 'uuid'
import { sayNotKept, useChange } from '../../data/queries.ts'
import parts from '../../parts/parts.module.css'
import { useConflict } from '../../parts/useConflict.tsx'

const LABELS = {
  count: 'Count',
  lowAt: 'Low at',
  drawer: 'Drawer',
  outsideMm: 'Outside',
  insideMm: 'Inside',
  lengthMm: 'Length',
  measuredMm: 'Measured',
  material: 'Material',
  name: 'Name',
}
const SIZES = {
  measuredMm: 'Measured',
  outsideMm: 'Outside',
  insideMm: 'Inside',
  lengthMm: 'Length',
} as const

function sizesOf(kind: StockKind): (keyof typeof SIZES)[] {
  if (kind === 'cutter' || kind === 'reamer') return ['measuredMm']
  return kind === 'bush' ? ['outsideMm', 'insideMm', 'lengthMm'] : ['outsideMm', 'lengthMm']
}

/** Puts something in a drawer, or changes what is there. */
export function StockForm({ kind, row, onDone }: { kind: StockKind; row: StockRow | undefined; onDone: () => void }) {
  const change = useChange('stock')
  const conflict = useConflict(LABELS)
  const blank: StockChange = {
    id: uuid(),
    version: 0,
    kind,
    name: '',
    material: '',
    outsideMm: null,
    insideMm: null,
    lengthMm: null,
    measuredMm: null,
    count: 1,
    lowAt: 0,
    drawer: '',
  }
  const { reserved: _, ...kept } = row ?? { ...blank, reserved: 0 }
  const form = useForm<StockChange>({ initialValues: kept, validate: checkedBy(StockChange) })
  const save = (values: StockChange) =>
    change.mutate(
      { method: 'PUT', path: `/stock/${values.id}`, body: values },
      {
        onSuccess: onDone,
        onError: (error) => {
          const again = (version: number) => save({ ...values, version })
          const theirs = (current: Record<string, unknown>) => form.setValues(current)
          if (!conflict.meet(error, { ...values }, again, theirs)) sayNotKept(error)
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
      <NumberInput
        key={path}
        label={label}
        hideControls
        rightSection={unit === '' ? undefined : <span className="quiet">{unit}</span>}
        {...props}
        value={props.value ?? ''}
        onChange={(v) => onChange(v === '' ? null : Number(v))}
      />
    )
  }
  // What belongs to the row as a whole, and to no one field of it.
  const whole = typeof form.errors[''] === 'string' ? form.errors[''] : null
  return (
    <form onSubmit={form.onSubmit(save)} noValidate>
      {conflict.dialog}
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
        <Button variant="default" onClick={onDone}>
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
