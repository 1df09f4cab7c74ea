import { blankHole, PLATES, type Hole, type PlacedArbor, type Plate } from '@treadle/contract'
import { byWorkingOrder, formatClockDirection, ofArbor, samePlace, type Trueing } from '@treadle/core'
import { Button, Group, SegmentedControl } from '@mantine/core'
import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { v7 as uuid } from 'uuid'
import { useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import type { Movement } from '@treadle/core'
import { useMovement } from '../../job/useMovement.ts'
import { whenShort } from '../../parts/say.ts'
import { WearQuestion } from '../../job/WearQuestion.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { Depths } from './Depths.tsx'
import { PlateDrawing, STATE_WORDS, wearWords } from '../../job/plates/PlateDrawing.tsx'
import { stateOf, type HoleState } from '@treadle/core'
import styles from '../../job/plates/Plates.module.css'
import { SetOut } from './SetOut.tsx'

const MARKS: Record<HoleState, 'must' | 'watch' | 'sound' | 'none'> = {
  open: 'none',
  must: 'must',
  watch: 'watch',
  sound: 'sound',
  bushed: 'sound',
  waived: 'none',
}

/** Both plates to scale: every hole, its wear as measured and as expected, and what that does to the depth. */
export function PlatesSurface() {
  const { plateMap } = useJobData()
  const [search, setSearch] = useSearchParams()
  const mode = search.get('do') === 'set-out' || plateMap === null ? 'set-out' : 'look'
  return (
    <>
      {plateMap !== null && (
        <SegmentedControl
          aria-label="What to do with the plates"
          mb="sm"
          value={mode}
          onChange={(to) => setSearch(to === 'look' ? {} : { do: to }, { replace: true })}
          data={[
            { value: 'look', label: 'Look at them' },
            { value: 'set-out', label: 'Set them out' },
          ]}
        />
      )}
      {mode === 'look' ? <Look /> : <SetOut onKept={() => setSearch({}, { replace: true })} />}
    </>
  )
}

function Look() {
  const { job, holes, plateMap, photos, bushedBefore } = useJobData()
  const movement = useMovement()
  const navigate = useNavigate()
  const [plate, setPlate] = useState<Plate>('front')
  const [chosen, setChosen] = useState<string | null>(null)
  const [underlay, setUnderlay] = useState(false)
  const map = plateMap
  const ordered = (map?.arbors ?? [])
    .flatMap((a) => PLATES.map((p) => ({ train: a.train, plate: p, arborIndex: a.index, arbor: a })))
    .sort(byWorkingOrder)
  const holeOf = (a: PlacedArbor, p: Plate) => holes.find((h) => samePlace(h, { ...ofArbor(a), plate: p }))
  const at = ordered.findIndex((o) => o.plate === plate && `${o.train} ${o.arbor.name}` === chosen)
  const open = ordered.filter((o) => {
    const hole = holeOf(o.arbor, o.plate)
    return !hole || !movement?.judged(hole).done
  })
  const next = ordered[at + 1]
  usePedalAction(
    next
      ? {
          label:
            at < 0 ? 'Press to go through the holes' : `Press for the next: ${next.arbor.name}, ${next.plate} plate`,
          hint: open.length > 0 ? `${open.length} not judged yet` : 'all are judged',
          press: () => {
            const [was, wasPlate] = [chosen, plate]
            setPlate(next.plate)
            setChosen(`${next.train} ${next.arbor.name}`)
            return () => {
              setPlate(wasPlate)
              setChosen(was)
            }
          },
        }
      : {
          label: 'Press to test them between the plates',
          press: () => void navigate(`/jobs/${job.id}/between-plates`),
        },
  )
  if (!map) return null
  const photo = photos.find((p) => p.id === map.photoId)
  const one = ordered[at]
  return (
    <>
      <div className={styles.columns}>
        <div>
          <Group mb="xs">
            <SegmentedControl
              aria-label="Plate"
              value={plate}
              onChange={(p) => setPlate(p)}
              data={[
                { value: 'front', label: 'Front plate' },
                { value: 'back', label: 'Back plate' },
              ]}
            />
            {photo && map.trueing && (
              <Button variant="subtle" onClick={() => setUnderlay(!underlay)} aria-pressed={underlay}>
                {underlay ? 'Without the photo' : 'With the photo'}
              </Button>
            )}
          </Group>
          <PlateDrawing
            key={plate}
            map={map}
            plate={plate}
            movement={movement}
            holes={holes}
            chosen={chosen}
            onChoose={(a) => setChosen(`${a.train} ${a.name}`)}
            bushedBefore={bushedBefore}
            photo={
              underlay && photo && map.trueing
                ? { id: photo.id, width: photo.width, height: photo.height, trueing: map.trueing as Trueing }
                : undefined
            }
          />
          <p className="quiet">
            Red: worn, as measured. Dotted with a ring: where the train’s forces should wear it. Dashed rim: not judged.
            Dotted green ring: bushed on an earlier visit.
          </p>
          <p>
            The {plate} plate at its true size, as seen from the front:{' '}
            <a href={`/api/jobs/${job.id}/plates/${plate}.svg`}>SVG to print</a>,{' '}
            <a href={`/api/jobs/${job.id}/plates/${plate}.dxf`}>DXF to cut by</a>.
          </p>
        </div>
        <section>
          {one ? (
            <OneHole arbor={one.arbor} plate={one.plate} hole={holeOf(one.arbor, one.plate)} movement={movement} />
          ) : (
            <p className={parts.say}>
              Choose a hole on the plate or in the list. {open.length} of {ordered.length} are not judged yet; a plate
              counts as judged when none of its holes is left.
            </p>
          )}
          <div className={styles.lists}>
            {PLATES.map((p) => (
              <div key={p}>
                <h3>{p === 'front' ? 'Front plate' : 'Back plate'}</h3>
                {ordered
                  .filter((o) => o.plate === p)
                  .map((o) => (
                    <HoleItem
                      key={`${o.train} ${o.arbor.name}`}
                      arbor={o.arbor}
                      hole={holeOf(o.arbor, p)}
                      movement={movement}
                      here={o === one}
                      onChoose={() => {
                        setPlate(p)
                        setChosen(`${o.train} ${o.arbor.name}`)
                      }}
                    />
                  ))}
              </div>
            ))}
          </div>
        </section>
      </div>
      {movement && <Depths movement={movement} />}
    </>
  )
}

function HoleItem({
  arbor,
  hole,
  movement,
  here,
  onChoose,
}: {
  arbor: PlacedArbor
  hole: Hole | undefined
  movement: Movement | undefined
  here: boolean
  onChoose: () => void
}) {
  const state = stateOf(hole, hole && movement?.judged(hole))
  return (
    <button
      type="button"
      className={here ? `${styles.item} ${styles.here}` : styles.item}
      aria-pressed={here}
      onClick={onChoose}
    >
      <Mark state={MARKS[state]} label={STATE_WORDS[state]} />
      <span>
        {arbor.name}
        <small>
          {arbor.train}, {STATE_WORDS[state]}
        </small>
      </span>
    </button>
  )
}

function OneHole({
  arbor,
  plate,
  hole,
  movement,
}: {
  arbor: PlacedArbor
  plate: Plate
  hole: Hole | undefined
  movement: Movement | undefined
}) {
  const { job, bushedBefore } = useJobData()
  const change = useChange()
  const navigate = useNavigate()
  const expected = movement?.expected({ train: arbor.train, arbor: arbor.name, plate }) ?? null
  const judged = hole && movement?.judged(hole)
  const state = stateOf(hole, judged)
  const before = bushedBefore.filter((b) => samePlace(b, { ...ofArbor(arbor), plate: plate }))
  const measure = () => {
    if (hole) return void navigate(`/jobs/${job.id}/holes?hole=${hole.id}`)
    const id = uuid()
    const body = blankHole(id, {
      train: arbor.train,
      arbor: arbor.name,
      arborIndex: arbor.index,
      plate,
      role: arbor.role,
    })
    change.mutate(
      { method: 'PUT', path: `/jobs/${job.id}/holes/${id}`, body },
      { onSuccess: () => void navigate(`/jobs/${job.id}/holes?hole=${id}`) },
    )
  }
  return (
    <>
      <h2>
        {arbor.name}, {plate} plate
      </h2>
      <p>
        <Mark state={MARKS[state]} /> {STATE_WORDS[state]}
        {hole && wearWords(hole) !== null && `, worn ${wearWords(hole)}`}
        {hole?.waived !== undefined && hole.waived !== '' && `: “${hole.waived}”`}
      </p>
      {judged?.sure != null && judged.sure < 0.95 && (
        <p>
          That is {(100 * judged.sure).toFixed(0)} % sure by {WAYS[judged.play?.way ?? 'caliper']}
          {judged.settleBy ? `; the ${WAYS[judged.settleBy]} would settle it.` : '.'}
        </p>
      )}
      <p className="quiet">
        {expected === null
          ? 'Which way it should wear is not told: the train’s counts or places are not all known.'
          : `The train should wear it toward ${formatClockDirection(expected)}.`}
      </p>
      {hole && <WearQuestion hole={hole} />}
      {before.map((b) => (
        <p key={`${b.jobNumber}`}>
          Bushed on job {b.jobNumber}, {whenShort(b.at)}
          {b.longAxisMm !== null &&
            b.shortAxisMm !== null &&
            `: was ${b.longAxisMm.toFixed(2)} by ${b.shortAxisMm.toFixed(2)} mm`}
          {b.finishedMm !== null && `, left at ${b.finishedMm.toFixed(2)}`}.
        </p>
      ))}
      <Group mb="md">
        <Button onClick={measure} loading={change.isPending}>
          {hole?.longAxisMm != null ? 'Its measures' : 'Measure it'}
        </Button>
        <Button
          variant="default"
          component={Link}
          to={`../between-plates?at=${encodeURIComponent(`${arbor.train} ${arbor.name}`)}`}
        >
          Test between the plates
        </Button>
      </Group>
    </>
  )
}

const WAYS = { caliper: 'caliper', dial: 'dial gauge', lean: 'lean test' }
