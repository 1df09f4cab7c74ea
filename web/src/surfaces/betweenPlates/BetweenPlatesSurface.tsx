import {
  BINDS,
  blankHole,
  PLATES,
  ArborTestChange,
  type ArborTestRow,
  type Hole,
  HoleChange,
  type Plate,
} from '@treadle/contract'
import { Button, Checkbox, Group, SegmentedControl, Textarea } from '@mantine/core'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { v5, v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import type { Movement } from '@treadle/core'
import { useMovement } from '../../job/useMovement.ts'
import { useRows } from '../../job/useRows.ts'
import { useStop } from '../../parts/useStop.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { PlateDrawing, STATE_WORDS } from '../../job/plates/PlateDrawing.tsx'
import { stateOf } from '@treadle/core'
import { nextOf, type Next } from './next.ts'
import plates from '../../job/plates/Plates.module.css'
import { gone, ofArbor, sameArbor, samePlace, testOrder, type TestStop, unjudged } from '@treadle/core'

const NAMESPACE = 'a3b6f2f0-6c0c-4a84-9a3c-1df2b0c4e9d7'

/** One train at a time between the empty plates, clean and dry: endshake, shake at each hole, binding, feel. */
export function BetweenPlatesSurface() {
  const { job, plateMap, holes, arborTests } = useJobData()
  const movement = useMovement()
  const navigate = useNavigate()
  const [shown, goTo] = useStop()
  const stops = testOrder(plateMap?.arbors ?? [], holes)
  const tests = useRows<ArborTestRow>('arbor-tests')
  const done = (hole: Hole) => movement?.judged(hole).done ?? false
  const [opensAt] = useState(() =>
    Math.max(
      0,
      stops.findIndex((s) => !gone(s, arborTests, holes, done)),
    ),
  )
  const wanted = stops.findIndex((s) => `${s.train} ${s.name}` === shown)
  const at = wanted >= 0 ? wanted : opensAt
  const stop = stops[at]
  const next = stops[at + 1]
  const go = (to: TestStop) => goTo(`${to.train} ${to.name}`)
  const blank = (s: TestStop): ArborTestChange => ({
    id: v5(`${job.id} ${s.train} ${s.name}`, NAMESPACE),
    version: 0,
    train: s.train,
    arbor: s.name,
    arborIndex: s.index,
    endshakeMm: null,
    binds: [],
    feel: '',
    tried: false,
    note: '',
  })
  const row = arborTests.find((t) => stop && sameArbor(t, ofArbor(stop)))
  const test = stop && tests.seen(blank(stop), row)
  const set = (part: Partial<ArborTestChange>) => {
    if (stop) tests.set(blank(stop), row, part)
  }
  const field = useRef<HTMLDivElement>(null)
  const now = stop && nextOf({ stop, tried: test?.tried === true, next })
  const press = (to: Next, here: TestStop): (() => void) | void => {
    switch (to.what) {
      case 'free': {
        const was = test
        set({ tried: true, binds: [] })
        return () => (was ? set({ tried: was.tried, binds: was.binds }) : set({ tried: false }))
      }
      case 'next-arbor':
        if (next) go(next)
        return () => go(here)
      case 'pivots':
        return void navigate(`/jobs/${job.id}/pivots`)
    }
  }
  usePedalAction(now && stop ? { label: now.label, hint: now.hint, press: () => press(now, stop) } : null)
  if (!stop)
    return (
      <>
        <h2>Nothing is on the plates yet</h2>
        <p className={parts.say}>
          Set the plates out, or put holes on the list; then each arbor is tried between the empty plates.
        </p>
        <Button component={Link} to="../plates">
          Set the plates out
        </Button>
      </>
    )
  return (
    <div className={parts.columns}>
      <section ref={field}>
        <h2>
          {stop.name}, {stop.train} train
        </h2>
        <p className={parts.say}>
          Clean, dry, its wheel alone between the empty plates. Great wheel first; one train at a time.
        </p>
        <div className={parts.fields}>
          <Figure
            label="Endshake"
            draftOf={`${stop.train} ${stop.name}`}
            unit="mm"
            value={test?.endshakeMm ?? null}
            of={[ArborTestChange, 'endshakeMm']}
            onKeep={(endshakeMm) => set({ endshakeMm })}
          />
          <div>
            <span>Feel</span>
            <SegmentedControl
              aria-label="Feel"
              size="md"
              value={test?.feel ?? ''}
              onChange={(feel) => set({ feel: feel })}
              data={[
                { value: 'smooth', label: 'smooth' },
                { value: 'gritty', label: 'gritty' },
                { value: 'rough', label: 'rough' },
              ]}
            />
          </div>
        </div>
        {test?.endshakeMm != null && test.endshakeMm < 0.1 && (
          <p>
            <Mark state="must" label="too little" /> Under 0.1 mm of endshake: it may bind when it is warm. Ease a
            shoulder.
          </p>
        )}
        <Group mt="sm">
          <span>Binds</span>
          {BINDS.map((b) => (
            <Checkbox
              key={b}
              size="md"
              label={b}
              checked={test?.binds.includes(b) ?? false}
              onChange={(e) =>
                set({
                  tried: true,
                  binds: e.currentTarget.checked
                    ? [...(test?.binds ?? []), b]
                    : (test?.binds ?? []).filter((x) => x !== b),
                })
              }
            />
          ))}
        </Group>
        {PLATES.map((plate) => (
          <HoleTest key={`${stop.train} ${stop.name} ${plate}`} stop={stop} plate={plate} movement={movement} />
        ))}
        <Group mt="md">
          {at > 0 && (
            <Button variant="default" size="lg" onClick={() => stops[at - 1] && go(stops[at - 1] as TestStop)}>
              Back
            </Button>
          )}
          {next && (
            <Button size="lg" onClick={() => go(next)}>
              Next: {next.name}
            </Button>
          )}
        </Group>
      </section>
      <section>
        {PLATES.map((plate) => {
          const left = unjudged(stops, holes, plate, done)
          return (
            <p key={plate}>
              <Mark state={left.length === 0 ? 'sound' : 'none'} />{' '}
              {left.length === 0
                ? `The ${plate} plate is judged.`
                : `The ${plate} plate is not judged: ${left.map((s) => s.name).join(', ')}.`}
            </p>
          )
        })}
        {plateMap && plateMap.arbors.some((a) => a.xMm !== null) ? (
          <PlateDrawing
            map={plateMap}
            plate="front"
            movement={movement}
            holes={holes}
            chosen={`${stop.train} ${stop.name}`}
            onChoose={go}
            order={stops
              .filter((s) => s.train === stop.train)
              .flatMap((s) => plateMap.arbors.filter((a) => sameArbor(ofArbor(a), ofArbor(s))))}
          />
        ) : (
          stops.map((s) => (
            <button
              key={`${s.train} ${s.name}`}
              type="button"
              className={s === stop ? `${plates.item} ${plates.here}` : plates.item}
              onClick={() => go(s)}
            >
              <Mark
                state={gone(s, arborTests, holes, done) ? 'sound' : 'none'}
                label={gone(s, arborTests, holes, done) ? 'done' : 'open'}
              />
              {s.name}, {s.train}
            </button>
          ))
        )}
      </section>
    </div>
  )
}

/** The shake of one hole by lean or gauge, with what it says and how sure. */
function HoleTest({ stop, plate, movement }: { stop: TestStop; plate: Plate; movement: Movement | undefined }) {
  const { holes, plateMap } = useJobData()
  const rows = useRows<Hole>('holes')
  const [waiving, setWaiving] = useState(false)
  const [reason, setReason] = useState('')
  const row = holes.find((h) => samePlace(h, { ...ofArbor(stop), plate }))
  const placed = plateMap?.arbors.find((a) => sameArbor(ofArbor(a), ofArbor(stop)))
  const [id] = useState(() => uuid())
  const place = { train: stop.train, arbor: stop.name, arborIndex: stop.index, plate, role: stop.role }
  const blank = {
    ...blankHole(row?.id ?? id, place),
    plateMm: (plate === 'front' ? placed?.frontMm : placed?.backMm) ?? null,
    jobId: '',
    measuredBy: '',
  }
  const hole = rows.seen(blank, row)
  const judged = hole && movement?.judged(hole)
  const set = (part: Partial<HoleChange>) => rows.set(blank, row, part)
  const state = stateOf(hole, judged)
  return (
    <div className={plates.end}>
      <h3>{plate === 'front' ? 'Front plate' : 'Back plate'}</h3>
      <div className={parts.fields}>
        <Figure
          label={`Lean, ${plate}`}
          draftOf={`${stop.train} ${stop.name}`}
          unit="°"
          value={hole?.leanDeg ?? null}
          of={[HoleChange, 'leanDeg']}
          onKeep={(leanDeg) => set({ leanDeg })}
        />
        <Figure
          label={`Side shake, ${plate}`}
          draftOf={`${stop.train} ${stop.name}`}
          unit="mm"
          value={hole?.shakeMm ?? null}
          of={[HoleChange, 'shakeMm']}
          onKeep={(shakeMm) => set({ shakeMm })}
        />
        <Figure
          label={`Pivot, ${plate}`}
          draftOf={`${stop.train} ${stop.name}`}
          unit="mm"
          value={hole?.pivotMm ?? null}
          of={[HoleChange, 'pivotMm']}
          beside={holes.filter((h) => h.id !== row?.id && sameArbor(h, ofArbor(stop))).map((h) => h.pivotMm)}
          onKeep={(pivotMm) => set({ pivotMm })}
        />
        <Figure
          label={`Plate here, ${plate}`}
          draftOf={`${stop.train} ${stop.name}`}
          unit="mm"
          value={hole?.plateMm ?? null}
          of={[HoleChange, 'plateMm']}
          beside={holes.filter((h) => h.plate === plate && h.id !== row?.id).map((h) => h.plateMm)}
          onKeep={(plateMm) => set({ plateMm })}
        />
      </div>
      <p aria-live="polite">
        <Mark
          state={
            state === 'must' || state === 'watch' ? state : state === 'open' || state === 'waived' ? 'none' : 'sound'
          }
        />{' '}
        {STATE_WORDS[state]}
        {judged?.play && `: play ${judged.play.playMm.toFixed(3)} ± ${judged.play.sigmaMm.toFixed(3)} mm`}
        {judged?.sure != null && `, ${sureWord(judged.sure)}`}
        {judged?.settleBy === 'caliper' && '. Too close to tell: the caliper’s two axes would settle it'}
        {judged?.verdict === 'bush' && !judged.plan && '. Its sizes want the caliper'}
        {hole?.waived ? `: “${hole.waived}”` : ''}.
      </p>
      <Group>
        {hole && (
          <Button variant="subtle" size="compact-md" component={Link} to={`../holes?hole=${hole.id}`}>
            Caliper
          </Button>
        )}
        {!judged?.done && (
          <Button variant="subtle" size="compact-md" onClick={() => setWaiving(!waiving)}>
            Need not be judged
          </Button>
        )}
        {hole?.waived ? (
          <Button variant="subtle" size="compact-md" onClick={() => set({ waived: '' })}>
            Judge it after all
          </Button>
        ) : null}
      </Group>
      {waiving && (
        <form
          onSubmit={(e) => {
            e.preventDefault()
            if (reason.trim().length < 4) return
            set({ waived: reason.trim() })
            setWaiving(false)
          }}
        >
          <Textarea
            label={`Why the ${plate} hole need not be judged`}
            value={reason}
            error={reason !== '' && reason.trim().length < 4 ? 'Say why in a few words' : undefined}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
          <Button type="submit" variant="default" mt="xs">
            Leave it unjudged
          </Button>
        </form>
      )}
    </div>
  )
}

/** How sure a verdict by the play alone is, in a word. */
function sureWord(sure: number): string {
  return sure >= 0.99 ? 'surely' : sure >= 0.9 ? 'very likely' : 'so near that it may go either way'
}
