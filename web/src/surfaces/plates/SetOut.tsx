import { PlateMapChange, type PlacedArbor, type PlateMapRow } from '@treadle/contract'
import { TRAIN_NAMES, type Trueing } from '@treadle/core'
import { Button, Group, NativeSelect, SegmentedControl, TextInput } from '@mantine/core'
import { useSessionStorage } from '@mantine/hooks'
import { notifications } from '@mantine/notifications'
import { useMemo, useState } from 'react'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Fold } from '../../parts/Fold.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { meetConflict } from '../../parts/conflict.tsx'
import { wordsOf } from '../../parts/fieldWords.ts'
import { useMovement } from '../../job/useMovement.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { ArborForm } from './ArborForm.tsx'
import { blankArbor, draftMap, freeName, missingArbors } from './draft.ts'
import { PlateDrawing, placeWords } from '../../job/plates/PlateDrawing.tsx'
import styles from '../../job/plates/Plates.module.css'
import { TruePhoto } from '../../job/plates/TruePhoto.tsx'

type Tool = 'arbor' | 'pillar' | 'edge'

const WORDS = wordsOf(PlateMapChange)

/** Sets the plates out: arbors by their trains, pillars, the edge, over a photo made true or from measures alone. */
export function SetOut({ onKept }: { onKept: () => void }) {
  const { job, plateMap, trainSheets, photos, holes } = useJobData()
  const fresh = useMemo(() => draftMap(plateMap, trainSheets), [plateMap, trainSheets])
  // What is not kept yet outlives a reload, and a look at another page.
  const [begun, setBegun, forget] = useSessionStorage<PlateMapChange | null>({
    key: `treadle-plates-${job.id}`,
    defaultValue: null,
    getInitialValueInEffect: false,
  })
  const draft = begun ?? fresh
  const [chosen, setChosen] = useState<string | null>(null)
  const [tool, setTool] = useState<Tool>('arbor')
  const [trueing, setTrueing] = useState(false)
  const change = useChange('clock')
  const movement = useMovement()
  const arbor = draft.arbors.find((a) => `${a.train} ${a.name}` === chosen)
  const set = (part: Partial<PlateMapChange>) => setBegun((now) => ({ ...(now ?? fresh), ...part }))
  const setArbor = (of: PlacedArbor, part: Partial<Omit<PlacedArbor, 'train' | 'name'>>) =>
    set({ arbors: draft.arbors.map((a) => (a === of ? { ...a, ...part } : a)) })
  const save = (row: PlateMapChange = draft) =>
    change.mutate(
      { method: 'PUT', path: `/jobs/${job.id}/plates/${row.id}`, body: row },
      {
        onSuccess: () => {
          forget()
          notifications.show({ message: 'The plates are kept.', autoClose: 2500 })
          onKept()
        },
        onError: (error) => {
          const met = meetConflict(error, {
            words: WORDS,
            base: plateMap ?? undefined,
            mine: row,
            send: (merged, version, id) => save({ ...(merged as PlateMapChange), version, id }),
            takeTheirs: (theirs) => setBegun(draftMap(theirs as unknown as PlateMapRow, trainSheets)),
          })
          if (!met) sayNotKept(error)
        },
      },
    )
  const place = (xMm: number, yMm: number) => {
    if (tool === 'edge') return set({ edge: [...draft.edge, { xMm, yMm }] })
    if (tool === 'pillar') {
      const name = freeName('Pillar', draft)
      return set({ fixtures: [...draft.fixtures, { name, kind: 'pillar', plate: 'both', xMm, yMm, diameterMm: 6 }] })
    }
    if (arbor) setArbor(arbor, { xMm, yMm })
  }
  const bare = draft.arbors.find((a) => a !== arbor && (a.xMm === null || a.yMm === null))
  const changed = !plateMap || JSON.stringify(draft) !== JSON.stringify(fresh)
  usePedalAction(
    bare
      ? {
          label: `Press for the next to place: ${bare.name}`,
          hint: `${bare.train} train`,
          press: () => {
            const was = chosen
            setChosen(`${bare.train} ${bare.name}`)
            return () => setChosen(was)
          },
        }
      : changed && draft.arbors.length > 0
        ? { label: 'Press to keep the plates', hint: `${draft.arbors.length} arbors`, press: () => save() }
        : null,
  )
  const photo = photos.find((p) => p.id === draft.photoId)
  const missing = missingArbors(draft, trainSheets)
  if (trueing)
    return (
      <TruePhoto
        before={draft}
        onDone={(part) => {
          set(part)
          setTrueing(false)
        }}
        onLeave={() => setTrueing(false)}
      />
    )
  return (
    <div className={styles.columns}>
      <div>
        <SegmentedControl
          aria-label="A tap on the plate"
          mb="xs"
          value={tool}
          onChange={(t) => setTool(t)}
          data={[
            { value: 'arbor', label: arbor ? `Tap places ${arbor.name}` : 'Tap places an arbor' },
            { value: 'pillar', label: 'a pillar' },
            { value: 'edge', label: 'a corner of the edge' },
          ]}
        />
        <PlateDrawing
          map={draft}
          plate="front"
          movement={movement}
          holes={holes}
          chosen={chosen}
          onChoose={(a) => setChosen(`${a.train} ${a.name}`)}
          onPlace={place}
          photo={
            photo && draft.trueing
              ? { id: photo.id, width: photo.width, height: photo.height, trueing: draft.trueing as Trueing }
              : undefined
          }
        />
        <Group mt="sm">
          <Button variant="default" onClick={() => setTrueing(true)}>
            {draft.trueing ? 'Another photo under it' : 'Trace it over a photo'}
          </Button>
          {draft.trueing && (
            <Button variant="subtle" onClick={() => set({ photoId: null, trueing: null })}>
              Without the photo
            </Button>
          )}
          {draft.edge.length > 0 && (
            <Button variant="subtle" onClick={() => set({ edge: draft.edge.slice(0, -1) })}>
              Take back a corner
            </Button>
          )}
        </Group>
      </div>
      <section>
        <h2>Arbors, as seen from the front</h2>
        {draft.arbors.length === 0 && (
          <p className={parts.say}>
            The counts on the Trains page name the arbors; or put them in one by one. x goes to the right, y up, in mm
            from any place you choose.
          </p>
        )}
        {draft.arbors.map((a) => {
          const key = `${a.train} ${a.name}`
          return (
            <button
              key={key}
              type="button"
              className={key === chosen ? `${styles.item} ${styles.here}` : styles.item}
              aria-pressed={key === chosen}
              onClick={() => setChosen(key)}
            >
              <span>
                {a.name}
                <small>
                  {a.train}, {a.xMm === null || a.yMm === null ? 'not placed' : placeWords(a.xMm, a.yMm)}
                </small>
              </span>
            </button>
          )
        })}
        {arbor && (
          <ArborForm
            key={chosen}
            arbor={arbor}
            draft={draft}
            sheets={trainSheets}
            onSet={(part) => setArbor(arbor, part)}
            onRemove={() => set({ arbors: draft.arbors.filter((a) => a !== arbor) })}
          />
        )}
        <Group mt="sm" align="end">
          {missing.length > 0 && (
            <Button variant="default" onClick={() => set({ arbors: [...draft.arbors, ...missing] })}>
              Add the {missing.length} that the train sheet names
            </Button>
          )}
          <AddArbor
            taken={draft.arbors}
            onAdd={(a) => {
              set({ arbors: [...draft.arbors, a] })
              setChosen(`${a.train} ${a.name}`)
            }}
          />
        </Group>
        <Fixtures draft={draft} onSet={set} />
        <div className={parts.fields}>
          <Figure
            label="Between the plates"
            unit="mm"
            value={draft.betweenMm}
            of={[PlateMapChange, 'betweenMm']}
            onKeep={(betweenMm) => set({ betweenMm })}
          />
        </div>
        <Group mt="md">
          <Button onClick={() => save()} loading={change.isPending} disabled={!changed}>
            Keep the plates
          </Button>
          {plateMap && (
            <Button variant="default" disabled={!changed} onClick={forget}>
              As they were
            </Button>
          )}
        </Group>
      </section>
    </div>
  )
}

function AddArbor({ taken, onAdd }: { taken: PlacedArbor[]; onAdd: (arbor: PlacedArbor) => void }) {
  const { clock } = useJobData()
  const [train, setTrain] = useState<PlacedArbor['train']>(clock.trains[0]?.train ?? 'going')
  const [name, setName] = useState('')
  const wrong = taken.some((a) => a.train === train && a.name === name.trim())
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        if (name.trim() === '' || wrong) return
        const index = Math.min(12, Math.max(-1, ...taken.filter((a) => a.train === train).map((a) => a.index)) + 1)
        onAdd(blankArbor({ train, name: name.trim(), index, role: 'other' }))
        setName('')
      }}
    >
      <Group align="end">
        <NativeSelect
          label="Train"
          value={train}
          data={[...TRAIN_NAMES]}
          onChange={(e) => setTrain(e.currentTarget.value as PlacedArbor['train'])}
        />
        <TextInput
          label="Another arbor"
          value={name}
          maxLength={60}
          error={wrong ? 'There is one of that name' : undefined}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Button type="submit" variant="default">
          Add it
        </Button>
      </Group>
    </form>
  )
}

function Fixtures({ draft, onSet }: { draft: PlateMapChange; onSet: (part: Partial<PlateMapChange>) => void }) {
  const put = (at: number, part: Partial<PlateMapChange['fixtures'][number]>) =>
    onSet({ fixtures: draft.fixtures.map((f, i) => (i === at ? { ...f, ...part } : f)) })
  return (
    <Fold title={`Pillars and screws (${draft.fixtures.length}), edge (${draft.edge.length} corners)`}>
      {draft.fixtures.map((f, i) => (
        <div key={i} className={parts.fields}>
          <TextInput
            label="Name"
            value={f.name}
            maxLength={40}
            onChange={(e) => put(i, { name: e.currentTarget.value })}
          />
          <NativeSelect
            label="Kind"
            value={f.kind}
            data={['pillar', 'screw', 'other']}
            onChange={(e) => put(i, { kind: e.currentTarget.value as 'pillar' })}
          />
          <NativeSelect
            label="Plate"
            value={f.plate}
            data={['both', 'front', 'back']}
            onChange={(e) => put(i, { plate: e.currentTarget.value as 'both' })}
          />
          <Figure
            label="x"
            draftOf={`fixture ${i}`}
            unit="mm"
            value={f.xMm}
            min={-600}
            max={600}
            onKeep={(v) => v !== null && put(i, { xMm: v })}
          />
          <Figure
            label="y"
            draftOf={`fixture ${i}`}
            unit="mm"
            value={f.yMm}
            min={-600}
            max={600}
            onKeep={(v) => v !== null && put(i, { yMm: v })}
          />
          <Figure
            label="Across"
            draftOf={`fixture ${i}`}
            unit="mm"
            value={f.diameterMm}
            min={0.2}
            max={60}
            onKeep={(v) => v !== null && put(i, { diameterMm: v })}
          />
          <Button variant="subtle" onClick={() => onSet({ fixtures: draft.fixtures.filter((_, n) => n !== i) })}>
            Take out {f.name}
          </Button>
        </div>
      ))}
      <Button
        variant="default"
        mt="xs"
        onClick={() =>
          onSet({
            fixtures: [
              ...draft.fixtures,
              {
                name: freeName('Screw', draft),
                kind: 'screw',
                plate: 'both',
                xMm: 0,
                yMm: 0,
                diameterMm: 3,
              },
            ],
          })
        }
      >
        Add one by measure
      </Button>
    </Fold>
  )
}
