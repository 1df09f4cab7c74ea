import { useMemo } from 'react'
import { StockChange, type StockKind, type StockRow } from '@treadle/contract'
import { TextInput } from '@mantine/core'
import { v7 as uuid } from 'uuid'
import { DrawerForm } from './DrawerForm.tsx'

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
  const kept = useMemo(() => changeOf(kind, row), [kind, row])
  return (
    <DrawerForm<StockChange>
      path="stock"
      schema={StockChange}
      row={kept}
      isNew={row === undefined}
      draft={`stock ${row?.id ?? kind}`}
      takeOut="Take it out of the drawers"
      onDone={onDone}
    >
      {(form, number) => (
        <>
          {sizesOf(kind).map((size) => number(size, SIZES[size]))}
          <TextInput label="Material" {...form.getInputProps('material')} />
          <TextInput
            label={kind === 'cutter' || kind === 'reamer' ? 'Stamped' : 'Name'}
            {...form.getInputProps('name')}
          />
          {number('count', 'Count', '')}
          {number('lowAt', 'Low at', '')}
          <TextInput label="Drawer" {...form.getInputProps('drawer')} />
        </>
      )}
    </DrawerForm>
  )
}
