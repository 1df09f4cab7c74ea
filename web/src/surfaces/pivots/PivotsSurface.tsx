import {
  blankPivot,
  PIVOT_WORK_TITLES,
  PLATES,
  PivotChange,
  type PivotRow,
  type Plate,
  type Settings,
} from '@treadle/contract'
import {
  FieldError,
  ofArbor,
  type PivotPlan,
  pivotRulesOf,
  type PivotVerdict,
  planOfPivot,
  repivotSizes,
  sameArbor,
  samePlace,
  unlessRefused,
} from '@treadle/core'
import { Button, Checkbox, Group, SegmentedControl } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { OverrideForm } from '../../job/OverrideForm.tsx'
import { RestLooked } from '../../job/RestLooked.tsx'
import parts from '../../parts/parts.module.css'
import { useRows } from '../../job/useRows.ts'
import { useStop } from '../../parts/useStop.ts'
import { Soon } from '../../parts/Soon.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import plates from '../../job/plates/Plates.module.css'
import { testOrder, type TestStop } from '@treadle/core'
import { nextOf } from './next.ts'
import { PivotPicture } from './PivotPicture.tsx'
import { doneBy, stepsOfPivot } from '@treadle/core'

const NAMESPACE = 'f5c1f0a2-2f6e-4e57-8a31-64a09d1f7c55'

interface End {
  stop: TestStop
  plate: Plate
}

/** Every pivot, before any bush is sized: what was found, what to do, how thick and strong it is afterwards. */
export function PivotsSurface() {
  const { job, plateMap, holes, pivots, gates } = useJobData()
  const { data: settings } = useSettings()
  const navigate = useNavigate()
  const [shown, goTo] = useStop()
  const rows = useRows<PivotRow>('pivots')
  const ends = testOrder(plateMap?.arbors ?? [], holes).flatMap((stop): End[] =>
    PLATES.map((plate) => ({ stop, plate })),
  )
  const keyOf = ({ stop, plate }: End) => `${stop.train} ${stop.name} ${plate}`
  const rowOf = ({ stop, plate }: End) => pivots.find((p) => samePlace(p, { ...ofArbor(stop), plate }))
  const at = Math.max(
    0,
    ends.findIndex((e) => keyOf(e) === shown),
  )
  const end = ends[at]
  const row = end && rows.seen(blankAt(job.id, end), rowOf(end))
  const go = (to: End) => goTo(keyOf(to))
  const next = ends[at + 1]
  const set = (part: Partial<PivotChange>) => {
    if (end) rows.set(blankAt(job.id, end), rowOf(end), part)
  }
  const plan = row && settings ? planned(row, settings, sisterOf(row, pivots)) : null
  const finish = plan && row?.finishedMm === null ? doneBy(plan.verdict, settings?.pivotSchool ?? 'burnish') : null
  const now = end && nextOf({ next, unfinished: row?.finishedMm == null && plan !== null })
  usePedalAction(
    now && end
      ? {
          label: now.label,
          hint: now.hint,
          press: () => {
            if (now.what === 'bushings' || !next) return void navigate(`/jobs/${job.id}/bushings`)
            go(next)
            return () => go(end)
          },
        }
      : null,
  )
  const gate = gates.find((g) => g.name === 'pivots')
  if (!end || !settings)
    return (
      <>
        <h2>No arbor is known yet</h2>
        <p className={parts.say}>
          Set the plates out, or put holes on the list; each arbor has a pivot in either plate.
        </p>
        <Button component={Link} to="../plates">
          Set the plates out
        </Button>
      </>
    )
  return (
    <div className={parts.columns}>
      <section>
        <h2>
          {end.stop.name}, {end.plate} pivot
        </h2>
        <Group>
          <span>Fingernail along it</span>
          <SegmentedControl
            aria-label="Fingernail along it"
            value={row?.nail ?? ''}
            onChange={(nail) => set({ nail: nail })}
            data={[
              { value: 'smooth', label: 'smooth' },
              { value: 'catches', label: 'catches' },
            ]}
          />
          <span>Shoulder</span>
          <SegmentedControl
            aria-label="Shoulder"
            value={row?.shoulder ?? ''}
            onChange={(shoulder) => set({ shoulder: shoulder })}
            data={[
              { value: 'clean', label: 'clean' },
              { value: 'worn', label: 'worn' },
            ]}
          />
          <Checkbox
            size="md"
            label="Rust pits"
            checked={row?.rust ?? false}
            onChange={(e) => set({ rust: e.currentTarget.checked })}
          />
        </Group>
        <Soon>
          {' '}
          <div className={parts.fields}>
            {FIGURES.map(([key, label]) => (
              <Figure
                key={`${keyOf(end)} ${key}`}
                label={label}
                draftOf={keyOf(end)}
                unit="mm"
                value={row?.[key] ?? null}
                of={[PivotChange, key]}
                beside={ACROSS.includes(key) ? ACROSS.filter((k) => k !== key).map((k) => row?.[k] ?? null) : []}
                onKeep={(value) => set({ [key]: value })}
              />
            ))}
          </div>
        </Soon>
        {plan && row && (
          <>
            <PivotPicture pivot={row} plan={plan} />
            <h3>
              <Mark state={STATES[plan.verdict]} /> {VERDICTS[plan.verdict]}
            </h3>
            <ul>
              {plan.reasons.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
            <p>
              Finished about <b>{plan.finishedMm.toFixed(2)} mm</b>, with <b>{plan.strengthPercent.toFixed(0)} %</b> of
              its bending strength.
            </p>
            <ol className={parts.say}>
              {stepsOfPivot(plan.verdict, settings.pivotSchool).map((s) => (
                <li key={s}>{s}</li>
              ))}
            </ol>
            {plan.verdict === 're-pivot' && <NewPivot pivot={row} plan={plan} />}
            {(plan.verdict === 'file and burnish' || plan.verdict === 'straighten' || plan.verdict === 're-pivot') && (
              <Caution>
                At the lathe: a few hundred turns a minute, light pressure, the steady rest oiled; eyes covered. Never
                wrap abrasive round a finger or a turning arbor; loose ends and sleeves away; no gloves. Follow your
                local rules, and let trained people do what they are asked for.
              </Caution>
            )}
            {plan.verdict === 'straighten' && (
              <Checkbox
                size="md"
                label="The owner was told that it may break"
                checked={row.ownerTold}
                onChange={(e) => set({ ownerTold: e.currentTarget.checked })}
              />
            )}
            <h3>As it is now</h3>
            {row.finishedMm === null ? (
              <Figure
                label={finish === null ? 'Finished' : `${PIVOT_WORK_TITLES[finish]}: the gauge now says`}
                unit="mm"
                value={null}
                min={0.05}
                max={50}
                onKeep={(finishedMm) => finishedMm !== null && finish && set({ finishedMm, work: finish })}
              />
            ) : (
              <Group>
                <Mark state="sound" label="finished" />
                <span>
                  {PIVOT_WORK_TITLES[row.work]}: <b>{row.finishedMm.toFixed(2)} mm</b>. Its bush follows this figure.
                </span>
                <Button variant="subtle" size="compact-md" onClick={() => set({ finishedMm: null, work: '' })}>
                  Not finished after all
                </Button>
              </Group>
            )}
          </>
        )}
        {!plan && (
          <p className={parts.say}>
            Draw a fingernail along it, then gauge it beside the shoulder and near its end. What to do comes as you
            type.
          </p>
        )}
      </section>
      <section>
        <p>
          <Mark state={gate?.passed ? 'sound' : 'must'} /> {gate?.reason}
        </p>
        <Soon>
          {' '}
          {ends.map((e) => {
            const p = rowOf(e)
            const its = p ? planned(p, settings, sisterOf(p, pivots)) : null
            return (
              <button
                key={keyOf(e)}
                type="button"
                className={e === end ? `${plates.item} ${plates.here}` : plates.item}
                aria-pressed={e === end}
                onClick={() => go(e)}
              >
                <Mark
                  state={p?.finishedMm != null ? 'sound' : its ? STATES[its.verdict] : 'none'}
                  label={p?.finishedMm != null ? 'finished' : its ? its.verdict : 'not looked at'}
                />
                <span>
                  {e.stop.name}, {e.plate}
                  <small>
                    {p?.finishedMm != null
                      ? `${PIVOT_WORK_TITLES[p.work]}, ${p.finishedMm.toFixed(2)} mm`
                      : its
                        ? its.verdict
                        : 'not looked at'}
                  </small>
                </span>
              </button>
            )
          })}
        </Soon>
        <RestLooked what="pivots" />
        {gate && !gate.passed && gate.overriddenBecause === null && (
          <details>
            <summary>Size bushes before the pivots are finished</summary>
            <OverrideForm jobId={job.id} gate="pivots" />
          </details>
        )}
      </section>
    </div>
  )
}

const FIGURES = [
  ['firstMm', 'Gauge, at the shoulder'],
  ['secondMm', 'Gauge, near its end'],
  ['grooveDepthMm', 'Groove, deep'],
  ['outOfRoundMm', 'Out of round'],
  ['runoutMm', 'Runs out, in the lathe'],
  ['originalMm', 'As it was made'],
  ['arborMm', 'Arbor beside it'],
] as const

/** What is measured across the pivot itself: one of these that is ten times off the others is asked about. */
const ACROSS: (typeof FIGURES)[number][0][] = ['firstMm', 'secondMm', 'originalMm']

const STATES: Record<PivotVerdict, 'sound' | 'watch' | 'must'> = {
  leave: 'sound',
  polish: 'watch',
  'file and burnish': 'watch',
  straighten: 'must',
  're-pivot': 'must',
}
const VERDICTS: Record<PivotVerdict, string> = {
  leave: 'Leave it as it is',
  polish: 'Polish it by hand',
  'file and burnish': 'Into the lathe with it',
  straighten: 'Straighten it first',
  're-pivot': 'Let in a new pivot',
}

function NewPivot({ pivot, plan }: { pivot: PivotRow; plan: PivotPlan }) {
  if (pivot.arborMm === null) return <p>Gauge the arbor beside it, and the sizes of drill and plug are told.</p>
  const wanted = pivot.originalMm ?? Math.max(pivot.firstMm ?? 0, pivot.secondMm ?? 0, plan.finishedMm)
  const sizes = unlessRefused(() => repivotSizes(wanted, pivot.arborMm ?? 0))
  if (sizes instanceof FieldError) return <p role="alert">{sizes.allowed}.</p>
  return (
    <p>
      Drill <b>{sizes.drillMm.toFixed(2)} mm</b>, <b>{sizes.depthMm.toFixed(1)} mm</b> deep; plug of pivot steel{' '}
      <b>{sizes.plugMm.toFixed(2)} mm</b>, driven in; the arbor keeps a wall of {sizes.wallMm.toFixed(2)} mm. Turn it
      down to {wanted.toFixed(2)}.
    </p>
  )
}

function planned(row: PivotRow, settings: Settings, sisterMm: number | null): PivotPlan | null {
  const plan = unlessRefused(() => planOfPivot(row, pivotRulesOf(settings), sisterMm))
  return plan instanceof FieldError ? null : plan
}

/** The pivot at the other end of the same arbor, as thick as it is known to be. */
function sisterOf(row: PivotRow, pivots: PivotRow[]): number | null {
  const sister = pivots.find((p) => sameArbor(p, row) && p.plate !== row.plate)
  return sister?.finishedMm ?? sister?.firstMm ?? null
}

function blankAt(jobId: string, { stop, plate }: End): PivotChange {
  const id = v5(`${jobId} ${stop.train} ${stop.name} ${plate}`, NAMESPACE)
  return blankPivot(id, { train: stop.train, arbor: stop.name, arborIndex: stop.index, plate })
}
