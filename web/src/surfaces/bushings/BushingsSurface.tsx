import {
  blankBushing,
  BushingChange,
  stockTitle,
  type BushingRow,
  type Hole,
  type ReservationRow,
  type StockRow,
} from '@treadle/contract'
import { BEFORE_THE_CUT, LEAST_WALL_MM, markersOf, mayCut, ofArbor, planOf, samePlace } from '@treadle/core'
import { Button, Checkbox, Group, NativeSelect } from '@mantine/core'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useSettings, useStock } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Caution } from '../../parts/Caution.tsx'
import { FoundInHole } from '../../job/FoundInHole.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { useMoveTo } from '../../job/useMoveTo.ts'
import { useMovement } from '../../job/useMovement.ts'
import { useObservations } from '../../job/useObservations.ts'
import { useRows } from '../../job/useRows.ts'
import { useStop } from '../../parts/useStop.ts'
import { useWearOpen } from '../../job/WearQuestion.tsx'
import { Soon } from '../../parts/Soon.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { PlateDrawing } from '../../job/plates/PlateDrawing.tsx'
import plates from '../../job/plates/Plates.module.css'
import styles from './Bushings.module.css'
import type { Plan, PlannedHole } from './planned.ts'
import { nextOf, type Next } from './next.ts'
import { NearLimit } from './NearLimit.tsx'
import { PriceThePlan } from '../../job/PriceThePlan.tsx'
import { TurnedSheet } from './TurnedSheet.tsx'

const NAMESPACE = '1f7f4b0c-9a51-4f0d-8f0e-6d6a1b6c3c11'

/** All bushes of the movement as one plan, hole by hole and step by step, by pedal; tomorrow it stands where it stood. */
export function BushingsSurface() {
  const data = useJobData()
  const movement = useMovement()
  const { data: settings } = useSettings()
  const { data: stock } = useStock()
  const { plateMap, holes } = data
  const reachMm = settings?.markerReachMm
  // Most of what a plan takes, for a large movement: it stays as long as the plates do, whatever is done at them.
  const markerAt = useMemo(
    () => (reachMm === undefined ? undefined : markersOf({ plateMap, holes }, reachMm)),
    [plateMap, holes, reachMm],
  )
  const plan = useMemo(
    () => (movement && settings && stock ? planOf(data, movement, settings, stock, markerAt) : null),
    [data, movement, settings, stock, markerAt],
  )
  return plan && stock ? <Planned plan={plan} stock={stock} /> : null
}

function Planned({ plan, stock }: { plan: Plan; stock: StockRow[] }) {
  const { job, holes, plateMap, reservations } = useJobData()
  const movement = useMovement()
  const seen = useObservations()
  const wearOpen = useWearOpen()
  const navigate = useNavigate()
  const moveTo = useMoveTo(job)
  const [shown, goTo] = useStop('hole')
  const rows = useRows<BushingRow>('bushings', 'stock')
  const judged = useRows<Hole>('holes')
  const promises = useRows<ReservationRow>('reservations', 'stock')
  const [drawings, setDrawings] = useState(false)
  const open = plan.holes.findIndex((h) => !h.hole.bushed)
  const wanted = plan.holes.findIndex((h) => h.hole.id === shown)
  const at = wanted >= 0 ? wanted : Math.max(0, open)
  const one = plan.holes[at]
  const go = (to: PlannedHole) => goTo(to.hole.id)
  const blank = ({ hole, work }: PlannedHole): BushingChange => ({
    ...blankBushing(v5(hole.id, NAMESPACE), hole.id),
    method: work.method,
  })
  /** What the plan gives the hole is written with its first step, so that it stays as it was begun. */
  const settled = ({ work, stockId, pivotMm }: PlannedHole): Partial<BushingChange> => ({
    source: stockId === null ? 'turned' : 'stock',
    stockId,
    cutterMm: work.cutterMm,
    outsideMm: work.bush?.outsideMm ?? null,
    insideMm: work.bush?.insideMm ?? null,
    lengthMm: work.bush?.lengthMm ?? null,
    pivotMm,
  })
  const set = (planned: PlannedHole, part: Partial<BushingChange>) => rows.set(blank(planned), planned.row, part)
  const steps = one?.steps ?? []
  const begun = one && rows.seen(blank(one), one.row)
  const done = (begun?.done ?? []).filter((key) => steps.some((s) => s.key === key))
  const step = steps.find((s) => !done.includes(s.key))
  // The bush leaves its drawer with the step that takes it in hand: the server sees to that, promised or not.
  const mark = (planned: PlannedHole, keys: string[]) => set(planned, { ...settled(planned), done: keys })
  const nextHole = plan.holes.find((h, i) => i !== at && !h.hole.bushed)
  const trains = [...new Set(plan.holes.map((h) => h.hole.train))]
  const runsDry = (train: string) => seen.of(`runs-dry ${train}`)?.answer === 'done'
  const together = trains.find((train) => !runsDry(train))
  const next =
    one &&
    nextOf({
      hole: one.hole,
      steps,
      done,
      pivotOpen: one.pivotOpen,
      nextHole: nextHole?.hole,
      trainToRun: together,
    })
  const press = (to: Next, here: PlannedHole): (() => void) | void => {
    switch (to.what) {
      case 'step':
        mark(here, [...done, to.key])
        return () => mark(here, done)
      case 'pivot-first':
        return void navigate(
          `../pivots?at=${encodeURIComponent(`${here.hole.train} ${here.hole.arbor} ${here.hole.plate}`)}`,
        )
      case 'next-hole':
        if (nextHole) go(nextHole)
        return () => go(here)
      case 'run-train':
        seen.set(`runs-dry ${to.train}`, { answer: 'done' })
        return () => seen.set(`runs-dry ${to.train}`, { answer: '' })
      case 'assemble': {
        const back = job.bay === 'mend' ? moveTo('set') : undefined
        void navigate(`/jobs/${job.id}/assemble`)
        return back
      }
    }
  }
  usePedalAction(next && one ? { label: next.label, hint: next.hint, press: () => press(next, one) } : null)
  if (!one)
    return (
      <>
        <h2>No hole is to be bushed</h2>
        <p className={parts.say}>
          Judge the holes between the plates first. Every one that the rule says to bush comes here by itself.
        </p>
        <Button component={Link} to="../between-plates">
          Test between the plates
        </Button>
        <NearLimit plan={plan} />
      </>
    )
  const unpromised = plan.holes.filter(
    (h) => h.stockId !== null && !h.hole.bushed && !reservations.some((r) => r.holeId === h.hole.id),
  )
  const unwanted = reservations.filter(
    (r) => !r.taken && r.holeId !== null && plan.holes.find((h) => h.hole.id === r.holeId)?.stockId !== r.stockId,
  )
  const toTurn = plan.holes.filter((h) => h.stockId === null && h.turned !== null && !h.hole.bushed)
  const bush = stock.find((s) => s.id === one.stockId)
  const found = judged.seen(one.hole, one.hole) ?? one.hole
  if (drawings) return <TurnedSheet holes={toTurn} onLeave={() => setDrawings(false)} />
  return (
    <div className={parts.columns}>
      <section>
        <h2>
          {one.hole.arbor}, {one.hole.plate} plate
        </h2>
        <p>
          {one.work.cutterMm === null ? (
            <>
              <Mark state="must" label="no cutter" /> No cutter in the drawer cleans it up: at least{' '}
              {one.judged.plan?.leastCutterMm.toFixed(2) ?? '?'} mm. <Link to="/drawers">Drawers</Link>
            </>
          ) : (
            <>
              Cutter <b>{one.work.cutterMm.toFixed(2)}</b>;{' '}
              {bush
                ? `${lowered(stockTitle(bush))}, drawer ${bush.drawer || 'not said'}`
                : 'bush turned to the drawing'}
              ; finished hole <b>{one.work.finishedMm.toFixed(2)} mm</b> for a pivot of {one.pivotMm?.toFixed(2) ?? '?'}
              .
            </>
          )}
        </p>
        {one.pivotOpen && (
          <p>
            <Mark state="must" label="wait" /> Its pivot is not finished: sizes are as predicted, and the plate is not
            cut before. <Link to="../pivots">Pivots</Link>
          </p>
        )}
        {!one.hole.bushed && wearOpen(one.hole) && (
          <p>
            <Mark state="watch" label="ask" /> It is worn another way than the train pushes, and nobody has said why.{' '}
            <Link to={`../holes?hole=${one.hole.id}`}>Answer that first</Link>
          </p>
        )}
        {one.conflicts.map((c) => (
          <p key={c.to}>
            <Mark state="must" label="too near" /> Only {c.leftMm.toFixed(2)} mm of plate would be left to {c.to};{' '}
            {LEAST_WALL_MM} is the least. Take a smaller cutter, or turn a thinner bush.
          </p>
        ))}
        <Soon>
          {' '}
          <Group mb="sm" align="end">
            <NativeSelect
              label="How"
              value={one.work.method}
              onChange={(e) => set(one, { method: e.currentTarget.value as BushingChange['method'] })}
              data={[
                { value: 'hand', label: 'by hand' },
                { value: 'jig', label: 'in a jig' },
              ]}
            />
            <FoundInHole hole={found} onKeep={(part) => judged.set(found, one.hole, part)} />
            <Checkbox
              size="md"
              label="It was spoilt: plug it"
              checked={one.work.spoilt}
              onChange={(e) => set(one, { spoilt: e.currentTarget.checked })}
            />
          </Group>
        </Soon>
        {one.oldHoleOpen && (
          <p>
            <Mark state="watch" label="mind" /> The cutter and the bush are chosen anew once the hole it leaves is
            measured.
          </p>
        )}
        <ol className={styles.steps}>
          {steps.map((s) => {
            const isDone = done.includes(s.key)
            const may = mayCut(done) || BEFORE_THE_CUT.includes(s.key)
            return (
              <li
                key={s.key}
                aria-current={s === step ? 'step' : undefined}
                className={s === step ? styles.now : undefined}
              >
                <Checkbox
                  size="md"
                  label={s.title}
                  checked={isDone}
                  disabled={!isDone && (!may || (one.pivotOpen && !BEFORE_THE_CUT.includes(s.key)))}
                  onChange={(e) =>
                    mark(one, e.currentTarget.checked ? [...done, s.key] : done.filter((key) => key !== s.key))
                  }
                />
                {!isDone && <p>{s.does}</p>}
                {s === step && s.caution !== undefined && <Caution>{s.caution} Follow your local rules.</Caution>}
                {s === step && s.key === 'cut' && (
                  <p>
                    <Link to={`../holes?hole=${one.hole.id}`}>The picture to file it back by</Link>
                  </p>
                )}
              </li>
            )
          })}
        </ol>
        {done.includes('broach') && (
          <Figure
            label="The hole as it was broached"
            draftOf={one.hole.id}
            unit="mm"
            value={one.row?.finishedMm ?? null}
            of={[BushingChange, 'finishedMm']}
            onKeep={(finishedMm) => set(one, { finishedMm })}
          />
        )}
      </section>
      <section>
        <h2>The plan</h2>
        <p className={parts.say}>
          {plan.holes.length} {plan.holes.length === 1 ? 'hole' : 'holes'}; cutters{' '}
          {plan.cutters.map(([mm, n]) => `${mm.toFixed(2)} (${n})`).join(', ') || 'none'}
          {plan.withoutCutter.length > 0 && `; ${plan.withoutCutter.length} without a cutter`};{' '}
          {plan.holes.filter((h) => h.stockId !== null).length} bushes from the drawers, {toTurn.length} to turn.
        </p>
        {toTurn.map((h) => (
          <p key={h.hole.id} className="quiet">
            To turn or to order for the {h.hole.arbor.toLowerCase()}, {h.hole.plate}: {h.turned?.outside.mm.toFixed(2)}{' '}
            × up to {h.work.finishedMm.toFixed(2)} × {h.work.plateMm.toFixed(2)} mm or longer.
          </p>
        ))}
        <Group mt="xs" mb="sm">
          {unpromised.length > 0 && (
            <Button
              variant="default"
              onClick={() => {
                for (const h of unpromised)
                  promises.put({
                    id: v5(`promise ${h.hole.id}`, NAMESPACE),
                    version: 0,
                    stockId: h.stockId ?? '',
                    holeId: h.hole.id,
                    count: 1,
                    taken: false,
                  })
              }}
            >
              Promise {unpromised.length} {unpromised.length === 1 ? 'bush' : 'bushes'} to this job
            </Button>
          )}
          {unwanted.length > 0 && (
            <Button
              variant="default"
              onClick={() => {
                for (const r of unwanted) promises.remove(r.id)
              }}
            >
              Give back {unwanted.length} {unwanted.length === 1 ? 'bush' : 'bushes'} no longer wanted
            </Button>
          )}
          {toTurn.length > 0 && (
            <Button variant="default" onClick={() => setDrawings(true)}>
              Drawings to turn by
            </Button>
          )}
          <PriceThePlan />
        </Group>
        <Soon>
          {' '}
          {plan.holes.map((h) => {
            const n = h.steps.filter((s) => h.row?.done.includes(s.key)).length
            return (
              <button
                key={h.hole.id}
                type="button"
                className={h === one ? `${plates.item} ${plates.here}` : plates.item}
                aria-pressed={h === one}
                onClick={() => go(h)}
              >
                <Mark
                  state={h.hole.bushed ? 'sound' : n > 0 ? 'watch' : 'must'}
                  label={h.hole.bushed ? 'bushed' : n > 0 ? 'begun' : 'to be bushed'}
                />
                <span>
                  {h.hole.arbor}, {h.hole.plate}
                  <small>
                    {h.hole.train}, {stateWords(h, n, reservations)}
                  </small>
                </span>
              </button>
            )
          })}
          {trains.map((train) => (
            <Checkbox
              key={train}
              mt="sm"
              size="md"
              label={`The whole ${train} train, dry: a finger’s pressure on the great wheel runs it, and it backs off at the end`}
              checked={runsDry(train)}
              disabled={!runsDry(train) && plan.holes.some((h) => h.hole.train === train && !h.hole.bushed)}
              onChange={(e) => seen.set(`runs-dry ${train}`, { answer: e.currentTarget.checked ? 'done' : '' })}
            />
          ))}
          {plateMap && one.marker && (
            <>
              <h3>Where its marks go</h3>
              <PlateDrawing
                key={one.hole.plate}
                map={plateMap}
                plate={one.hole.plate}
                movement={movement}
                holes={holes}
                chosen={`${one.hole.train} ${one.hole.arbor}`}
                points={one.marker.points}
                onChoose={(a) => {
                  const there = plan.holes.find((h) => samePlace(h.hole, { ...ofArbor(a), plate: one.hole.plate }))
                  if (there) go(there)
                }}
              />
              <p className="quiet">
                The crosses are the marker’s two outer points, as far as can be from every other hole and the edge:{' '}
                {one.marker.clearMm === null ? 'nothing is near' : `${one.marker.clearMm.toFixed(1)} mm clear`}.
              </p>
            </>
          )}
        </Soon>
        <NearLimit plan={plan} />
      </section>
    </div>
  )
}

const lowered = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)

/** How far a hole is, and where its bush comes from. */
function stateWords({ hole, row, steps, stockId }: PlannedHole, done: number, promised: ReservationRow[]): string {
  if (hole.bushed) return row ? `bushed, ${row.source === 'stock' ? 'from the drawer' : 'turned'}` : 'bushed'
  const from = stockId === null ? 'turned' : promised.some((r) => r.holeId === hole.id) ? 'promised' : 'in the drawer'
  return `${done} of ${steps.length} steps, ${from}`
}
