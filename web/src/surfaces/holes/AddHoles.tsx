import { blankHole, type HoleChange } from '@treadle/contract'
import { endsOf, samePlace, TRAIN_NAMES } from '@treadle/core'
import { Button, Group, Modal, NativeSelect, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { ApiProblem } from '../../data/api.ts'
import { sentenceOf, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import styles from './Holes.module.css'

type Role = HoleChange['role']
type NewHole = Pick<HoleChange, 'train' | 'arbor' | 'arborIndex' | 'plate' | 'role'>

/** The arbors a train usually has, from the great wheel up; extra ones are added by name. */
const USUAL: Record<string, [arbor: string, role: Role][]> = {
  going: [
    ['Great wheel', 'other'],
    ['Centre', 'other'],
    ['Third arbor', 'other'],
    ['Escape arbor', 'escape'],
    ['Pallet arbor', 'pallet'],
  ],
  strike: [
    ['Great wheel', 'other'],
    ['Pin wheel', 'other'],
    ['Locking arbor', 'other'],
    ['Warning arbor', 'other'],
    ['Fly', 'other'],
  ],
  chime: [
    ['Great wheel', 'other'],
    ['Second arbor', 'other'],
    ['Locking arbor', 'other'],
    ['Warning arbor', 'other'],
    ['Fly', 'other'],
  ],
}

/** Puts holes on the list: the usual ones of a train in both plates, or one by name. */
export function AddHoles({ empty = false }: { empty?: boolean }) {
  const data = useJobData()
  const { job, clock, holes } = data
  const change = useChange()
  const [open, setOpen] = useState(false)
  const [hole, setHole] = useState<NewHole>({
    train: clock.trains[0]?.train ?? 'going',
    arbor: '',
    arborIndex: 2,
    plate: 'back',
    role: 'other',
  })
  const put = async (list: NewHole[]) => {
    try {
      for (const one of list) {
        const body = blankHole(uuid(), one)
        try {
          await change.mutateAsync({ method: 'PUT', path: `/jobs/${job.id}/holes/${body.id}`, body })
        } catch (error) {
          // Somebody put it on the list meanwhile; the others still go on.
          if (!(error instanceof ApiProblem) || error.status !== 409 || list.length === 1) throw error
        }
      }
      setOpen(false)
    } catch (error) {
      notifications.show({ color: 'red', title: 'Not on the list', message: sentenceOf(error) })
    }
  }
  /** The arbors the train is known to have, by sheet, plates and list; the usual ones only where nothing is known of it. */
  const arborsOf = (train: string): [arbor: string, role: Role][] => {
    const known = [...new Set(endsOf([train], data).ends.map((e) => e.arbor))]
    if (known.length === 0) return USUAL[train] ?? []
    const placed = (name: string) => data.plateMap?.arbors.find((a) => a.train === train && a.name === name)
    const order = (name: string) => placed(name)?.index ?? known.indexOf(name)
    const roleOf = (name: string): Role =>
      placed(name)?.role ?? (/pallet|anchor/i.test(name) ? 'pallet' : /escape/i.test(name) ? 'escape' : 'other')
    return known.sort((a, b) => order(a) - order(b)).map((name) => [name, roleOf(name)])
  }
  const usual = (train: string): NewHole[] =>
    (['front', 'back'] as const).flatMap((plate) =>
      arborsOf(train).flatMap(([arbor, role], arborIndex) =>
        holes.some((h) => samePlace(h, { train, arbor, plate })) ? [] : [{ train, arbor, arborIndex, plate, role }],
      ),
    )
  const choices = (
    <Group>
      {clock.trains.map(({ train }) => (
        <Button
          key={train}
          variant={empty ? 'filled' : 'default'}
          onClick={() => void put(usual(train))}
          loading={change.isPending}
        >
          {endsOf([train], data).ends.length === 0 ? 'The usual holes' : 'All holes'} of the {train} train
        </Button>
      ))}
      {empty && (
        <Button variant="default" onClick={() => setOpen(true)}>
          One by name
        </Button>
      )}
    </Group>
  )
  return (
    <>
      {empty ? (
        <div className={styles.empty}>
          <h2>No hole on the list yet</h2>
          <p>
            Judge them with the wheels between the empty plates, clean and dry, one train at a time. Start with the
            list:
          </p>
          {choices}
        </div>
      ) : (
        <Button variant="subtle" onClick={() => setOpen(true)}>
          Add holes
        </Button>
      )}
      <Modal
        opened={open}
        onClose={() => setOpen(false)}
        title="Add holes to the list"
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {!empty && choices}
        <form
          className={styles.addForm}
          onSubmit={(e) => {
            e.preventDefault()
            if (hole.arbor.trim() !== '') void put([{ ...hole, arbor: hole.arbor.trim() }])
          }}
        >
          <NativeSelect
            label="Train"
            data={[...TRAIN_NAMES]}
            value={hole.train}
            onChange={(e) => setHole({ ...hole, train: e.currentTarget.value })}
          />
          <TextInput
            label="Arbor"
            required
            placeholder="Second arbor"
            value={hole.arbor}
            onChange={(e) => setHole({ ...hole, arbor: e.currentTarget.value })}
          />
          <NativeSelect
            label="Place in the train, great wheel 0"
            data={['0', '1', '2', '3', '4', '5', '6']}
            value={String(hole.arborIndex)}
            onChange={(e) => setHole({ ...hole, arborIndex: Number(e.currentTarget.value) })}
          />
          <NativeSelect
            label="Plate"
            data={['front', 'back']}
            value={hole.plate}
            onChange={(e) => setHole({ ...hole, plate: e.currentTarget.value as 'front' })}
          />
          <NativeSelect
            label="Role"
            data={['other', 'escape', 'pallet']}
            value={hole.role}
            onChange={(e) => setHole({ ...hole, role: e.currentTarget.value as Role })}
          />
          <Button type="submit">Add this hole</Button>
        </form>
      </Modal>
    </>
  )
}
