import { blankOil, OilChange, type OilRow } from '@treadle/contract'
import { bottleStands, OIL_KINDS, OIL_SCHOOLS, oilsSeen, type OilKind, type OilSeen } from '@treadle/core'
import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useOils, useOilsSeen } from '../../data/queries.ts'
import { Columns, type Column } from '../../parts/Columns.tsx'
import { DayField } from '../../parts/DayField.tsx'
import { Loaded } from '../../parts/Loading.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { ChangeRow } from './ChangeRow.tsx'
import { DrawerForm } from './DrawerForm.tsx'

const TITLES: Record<OilKind, string> = { 'pivot oil': 'Pivot oils', 'heavy oil': 'Heavy oils', grease: 'Greases' }
const STANDS = {
  fresh: ['sound', 'fresh'],
  old: ['watch', 'near its end'],
  over: ['must', 'past its time'],
} as const

/** The drawer of oils and greases, each with the age of its bottle and what pictures of sinks tell of it. */
export function Oils() {
  const oils = useOils()
  const { data: pictures } = useOilsSeen()
  const [editing, setEditing] = useState<{ kind: OilKind; id: string } | null>(null)
  const [nowS] = useState(() => Date.now() / 1000)
  const seen = oilsSeen(pictures ?? [])
  return (
    <Loaded query={oils}>
      {(rows) => (
        <>
          <p className="quiet">
            Household, vegetable, penetrating and sewing-machine oils gum or creep: never. An open bottle ages too.
          </p>
          {OIL_KINDS.map((kind) => {
            const mine = rows.filter((o) => o.kind === kind)
            return (
              <section key={kind} className={parts.next}>
                <h2>{TITLES[kind]}</h2>
                {mine.length === 0 && <p className="quiet">None is listed yet.</p>}
                {mine.length > 0 && (
                  <Columns
                    label={TITLES[kind]}
                    rows={mine}
                    columns={columnsOf(seen, nowS, (id) => setEditing({ kind, id }))}
                    keyOf={(o) => o.id}
                  />
                )}
                {editing?.kind === kind ? (
                  <OilForm
                    key={editing.id}
                    kind={kind}
                    row={mine.find((o) => o.id === editing.id)}
                    onDone={() => setEditing(null)}
                  />
                ) : (
                  <Button mt="sm" variant="default" onClick={() => setEditing({ kind, id: 'new' })}>
                    Put in a {kind}
                  </Button>
                )}
              </section>
            )
          })}
        </>
      )}
    </Loaded>
  )
}

function columnsOf(seen: OilSeen[], nowS: number, onEdit: (id: string) => void): Column<OilRow>[] {
  return [
    {
      key: 'bottle',
      title: 'Bottle',
      value: (o) => o.openedOn ?? '',
      show: (o) => {
        const bottle = bottleStands(o, nowS)
        if (!bottle) return <span className="quiet">not open, or not said</span>
        const [state, words] = STANDS[bottle.stands]
        return (
          <>
            <Mark state={state} /> {words}, open {bottle.years.toFixed(1)} years of {o.keepsYears}
          </>
        )
      },
    },
    { key: 'name', title: 'Name', value: (o) => o.name, show: (o) => <b>{o.name}</b> },
    {
      key: 'school',
      title: 'Trusted in a clock',
      value: (o) => o.school,
      show: (o) => (o.school === '' ? 'as the workshop has it' : OIL_SCHOOLS[o.school].title),
    },
    { key: 'seen', title: 'As our pictures show', show: (o) => seenInWords(seen.find((s) => s.oilId === o.id)) },
    { key: 'drawer', title: 'Drawer', value: (o) => o.drawer, show: (o) => o.drawer },
    {
      key: 'change',
      show: (o) => <ChangeRow what={o.name} onEdit={() => onEdit(o.id)} />,
    },
  ]
}

/** What pictures of the sinks tell of an oil, in a sentence. */
export function seenInWords(seen: OilSeen | undefined): string {
  if (!seen) return 'no picture judged yet'
  const { stays, spread, dry, stayedYears, failedYears } = seen
  const words = [
    stays > 0 && stayedYears !== null ? `stayed in ${stays}, for up to ${stayedYears.toFixed(1)} years` : '',
    spread > 0 ? `ran out of ${spread}` : '',
    dry > 0 ? `dry in ${dry}` : '',
    failedYears !== null ? `the soonest after ${failedYears.toFixed(1)} years` : '',
  ]
  return words.filter((w) => w !== '').join(', ')
}

function OilForm({ kind, row, onDone }: { kind: OilKind; row: OilRow | undefined; onDone: () => void }) {
  const [fresh] = useState(() => uuid())
  const start = useMemo(() => row ?? blankOil(fresh, kind), [row, fresh, kind])
  return (
    <DrawerForm
      path="oils"
      schema={OilChange}
      row={start}
      isNew={!row}
      draft={`oil ${row?.id ?? kind}`}
      takeOut="Take it out"
      onDone={onDone}
    >
      {(form, number) => (
        <>
          <TextInput label="Name" maxLength={80} {...form.getInputProps('name')} />
          <DayField
            label="Opened on"
            value={form.values.openedOn ?? ''}
            onChange={(day) => form.setFieldValue('openedOn', day === '' ? null : day)}
          />
          {number('keepsYears', 'Keeps, once open', 'years')}
          <NativeSelect
            label="Trusted in a clock"
            {...form.getInputProps('school')}
            data={[
              { value: '', label: 'As the workshop has it' },
              ...Object.entries(OIL_SCHOOLS).map(([value, { title }]) => ({ value, label: title })),
            ]}
          />
          <TextInput label="Drawer" maxLength={40} {...form.getInputProps('drawer')} />
          <TextInput label="Note" maxLength={300} {...form.getInputProps('note')} />
        </>
      )}
    </DrawerForm>
  )
}
