import { blankDonor, DonorChange, type DonorRow } from '@treadle/contract'
import { DONOR_KINDS } from '@treadle/core'
import { Button, FileButton, NativeSelect, TextInput } from '@mantine/core'
import { useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { queryClient, sayNotKept, sendAsChange, useDonors } from '../../data/queries.ts'
import { Columns, type Column } from '../../parts/Columns.tsx'
import { Loaded } from '../../parts/Loading.tsx'
import { ChangeRow } from './ChangeRow.tsx'
import { DrawerForm } from './DrawerForm.tsx'

const SIZES = [
  ['count', 'Count', ''],
  ['moduleMm', 'Module', 'mm'],
  ['boreMm', 'Bore', 'mm'],
  ['outsideMm', 'Outside', 'mm'],
  ['arborMm', 'Arbor', 'mm'],
] as const

/** The donor ledger: used parts of scrapped movements, by what decides whether they fit. */
export function Donors() {
  const donors = useDonors()
  const [editing, setEditing] = useState<string | null>(null)
  return (
    <>
      <p className="quiet">
        Used wheels, pinions, escape wheels, platforms and springs. A worn wheel’s sheet says which of them fits, and
        how nearly.
      </p>
      <Loaded query={donors}>
        {(rows) => (
          <>
            {rows.length === 0 && <p>The ledger is empty: measure a scrapped movement’s wheels and put them in.</p>}
            {rows.length > 0 && (
              <Columns label="Donor ledger" rows={rows} columns={columnsOf(setEditing)} keyOf={(d) => d.id} />
            )}
            {editing === null ? (
              <Button mt="md" onClick={() => setEditing('new')}>
                Put in a part
              </Button>
            ) : (
              <DonorForm key={editing} row={rows.find((d) => d.id === editing)} onDone={() => setEditing(null)} />
            )}
          </>
        )}
      </Loaded>
    </>
  )
}

function columnsOf(onEdit: (id: string) => void): Column<DonorRow>[] {
  const size = (key: 'count' | 'moduleMm' | 'boreMm' | 'outsideMm' | 'arborMm', title: string): Column<DonorRow> => ({
    key,
    title,
    value: (d) => d[key],
    show: (d) => d[key] ?? '–',
  })
  return [
    {
      key: 'photo',
      show: (d) =>
        d.hasPhoto && (
          <img
            src={`/api/donors/${d.id}/photo`}
            alt=""
            width="40"
            height="40"
            style={{ objectFit: 'cover', display: 'block' }}
            loading="lazy"
          />
        ),
    },
    { key: 'kind', title: 'Kind', value: (d) => d.kind, show: (d) => <b>{d.kind}</b> },
    size('count', 'Count'),
    size('moduleMm', 'Module, mm'),
    size('boreMm', 'Bore, mm'),
    size('outsideMm', 'Outside, mm'),
    size('arborMm', 'Arbor, mm'),
    { key: 'from', title: 'Out of', value: (d) => d.from, show: (d) => d.from },
    { key: 'there', title: 'There', value: (d) => d.there, show: (d) => d.there },
    { key: 'drawer', title: 'Drawer', value: (d) => d.drawer, show: (d) => d.drawer },
    {
      key: 'change',
      show: (d) => (
        <ChangeRow
          what={`the ${d.kind} of ${d.count ?? 'no count'}${d.from === '' ? '' : `, ${d.from}`}`}
          onEdit={() => onEdit(d.id)}
        />
      ),
    },
  ]
}

function DonorForm({ row, onDone }: { row: DonorRow | undefined; onDone: () => void }) {
  const kept = useMemo(() => changeOf(row), [row])
  const [photo, setPhoto] = useState<File | null>(null)
  const sendPhoto = (id: string) => {
    if (!photo) return
    sendAsChange({ method: 'PUT', path: `/donors/${id}/photo`, body: photo }).then(
      () => void queryClient.invalidateQueries({ queryKey: ['donors'] }),
      sayNotKept,
    )
  }
  return (
    <DrawerForm<DonorChange>
      path="donors"
      schema={DonorChange}
      row={kept}
      isNew={row === undefined}
      draft={`donor ${row?.id ?? 'new'}`}
      takeOut="Take it out"
      onDone={onDone}
      onKept={sendPhoto}
      more={
        <FileButton accept="image/jpeg,image/png,image/webp" onChange={setPhoto}>
          {(props) => (
            <Button variant="default" {...props}>
              {photo ? photo.name : 'Photo'}
            </Button>
          )}
        </FileButton>
      }
    >
      {(form, number) => (
        <>
          <NativeSelect label="Kind" data={[...DONOR_KINDS]} {...form.getInputProps('kind')} />
          {SIZES.map(([key, label, unit]) => number(key, label, unit))}
          <NativeSelect
            label="Collet on the side"
            data={[
              { value: '', label: 'not said' },
              { value: 'front', label: 'front' },
              { value: 'back', label: 'back' },
            ]}
            {...form.getInputProps('side')}
          />
          {number('there', 'There', '')}
          <TextInput label="Out of" {...form.getInputProps('from')} />
          <TextInput label="Drawer" {...form.getInputProps('drawer')} />
          <TextInput label="Note" {...form.getInputProps('note')} />
        </>
      )}
    </DrawerForm>
  )
}

function changeOf(row: DonorRow | undefined): DonorChange {
  if (!row) return blankDonor(uuid())
  const { hasPhoto: _, ...kept } = row
  return kept
}
