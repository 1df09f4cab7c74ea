import { blankDepthTrial, DepthTrialChange, GEARINGS, type DepthTrialRow } from '@treadle/contract'
import {
  contrateDepthMm,
  depthTool,
  distanceMm,
  FEELS,
  FieldError,
  settingsToTry,
  smoothRange,
  unlessRefused,
  type DepthSetting,
} from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { mm } from '../../parts/say.ts'
import { Soon } from '../../parts/Soon.tsx'
import { useStop } from '../../parts/useStop.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import plates from '../../job/plates/Plates.module.css'
import { nextOf } from './next.ts'
import { ToolPicture } from './ToolPicture.tsx'

const NAMESPACE = '6d7a2b8e-0c41-4a3f-9a55-1f2e3d4c5b60'
const RUNNER_MM = 6

interface MeshHere {
  key: string
  train: string
  driver: string
  arbor: string
  arborIndex: number
  wheelTeeth: number
  pinionLeaves: number
  /** of the plates, where the module of the driver was measured */
  moduleMm: number | null
  /** between the two holes, as the plates are */
  foundMm: number | null
}

/** The depthing tool: each wheel with its pinion, how the transfer feels at five settings, and the one that is kept. */
export function DepthingSurface() {
  const data = useJobData()
  const { job, depths } = data
  const navigate = useNavigate()
  const [shown, goTo] = useStop()
  const rows = useRows<DepthTrialRow>('depths')
  const all = meshesOf(data)
  const at = Math.max(
    0,
    all.findIndex((m) => m.key === shown),
  )
  const mesh = all[at]
  const next = all[at + 1]
  const stored = mesh && depths.find((d) => d.train === mesh.train && d.arbor === mesh.arbor)
  const blank =
    mesh &&
    blankDepthTrial(v5(`${job.id} ${mesh.train} ${mesh.arbor}`, NAMESPACE), {
      train: mesh.train,
      arbor: mesh.arbor,
      arborIndex: mesh.arborIndex,
    })
  const sheet = blank && (rows.seen(blank, stored) ?? blank)
  const set = (part: Partial<DepthTrialChange>) => {
    if (blank) rows.set(blank, stored, part)
  }
  const runnerMm = sheet?.runnerMm ?? RUNNER_MM
  const moduleMm = sheet?.moduleMm ?? mesh?.moduleMm ?? null
  const setting =
    mesh && (moduleMm !== null || mesh.foundMm !== null)
      ? unlessRefused(() =>
          depthTool(
            mesh.wheelTeeth,
            mesh.pinionLeaves,
            moduleMm !== null ? { moduleMm } : { centreDistanceMm: mesh.foundMm },
            runnerMm,
          ),
        )
      : null
  const told = setting === null || setting instanceof FieldError ? null : setting
  const trials =
    sheet && sheet.trials.length > 0
      ? sheet.trials
      : told
        ? settingsToTry(told).map((acrossMm) => ({ acrossMm: Math.round(acrossMm * 100) / 100, feel: '' as const }))
        : []
  const range = smoothRange(trials)
  const now = nextOf({
    trials,
    keptMm: sheet?.keptMm ?? null,
    bestMm: range?.bestMm ?? null,
    next,
    known: told !== null,
  })
  const feel = (i: number, how: (typeof FEELS)[number] | '') =>
    set({ trials: trials.map((t, n) => (n === i ? { ...t, feel: how } : t)), keptMm: null })
  usePedalAction(
    mesh && sheet
      ? {
          label: now.label,
          hint: now.hint,
          press: () => {
            switch (now.what) {
              case 'feel':
                feel(now.at, now.feel)
                return () => feel(now.at, '')
              case 'keep':
                set({ keptMm: now.mm })
                return () => set({ keptMm: null })
              case 'next':
                if (next) goTo(next.key)
                return () => goTo(mesh.key)
              case 'make':
                return void navigate(`/jobs/${job.id}/make`)
            }
          },
        }
      : null,
  )
  if (!mesh || !sheet)
    return (
      <>
        <h2>No wheel and pinion is known yet</h2>
        <p className={parts.say}>Count the trains first: each wheel that drives a pinion comes here.</p>
        <Button component={Link} to="../trains">
          Count the trains
        </Button>
      </>
    )
  return (
    <div className={parts.columns}>
      <section>
        <h2>
          {mesh.driver}, {mesh.wheelTeeth}, with {mesh.arbor}, {mesh.pinionLeaves}
        </h2>
        <Pick label="Gearing" value={sheet.gearing} of={GEARINGS} onPick={(gearing) => set({ gearing })} />
        <div className={parts.fields}>
          <Figure
            label="Module in hand"
            draftOf={mesh.key}
            unit="mm"
            value={sheet.moduleMm ?? mesh.moduleMm}
            of={[DepthTrialChange, 'moduleMm']}
            onKeep={(v) => set({ moduleMm: v, trials: [], keptMm: null })}
          />
          <Figure
            label="Runner, across"
            draftOf={mesh.key}
            unit="mm"
            value={runnerMm}
            of={[DepthTrialChange, 'runnerMm']}
            onKeep={(v) => set({ runnerMm: v, trials: [], keptMm: null })}
          />
        </div>
        {told === null ? (
          <p className={parts.say}>
            Measure a wheel for its module, or set the plates out: then it is told how far apart the two run.
          </p>
        ) : (
          <>
            <ToolPicture setting={told} runnerMm={runnerMm} teeth={mesh.wheelTeeth} leaves={mesh.pinionLeaves} />
            <p>
              Centre distance <b>{mm(told.centreDistanceMm)}</b>, across the runners <b>{mm(told.acrossRunnersMm)}</b>;
              module {told.moduleMm.toFixed(3)} mm.
            </p>
            {sheet.gearing !== 'plain' && (
              <p className={parts.say}>
                Right-angle runners: the pinion’s axis stands about{' '}
                <b>{mm(contrateDepthMm(mesh.pinionLeaves, told.moduleMm))}</b> from the tips of the{' '}
                {sheet.gearing === 'crown' ? 'crown' : 'contrate'} wheel’s teeth; the feel decides.
              </p>
            )}
            <PlatesSay mesh={mesh} told={told} keptMm={sheet.keptMm} runnerMm={runnerMm} />
            <h3 className={parts.next}>How it feels</h3>
            <p className={parts.say}>
              From far apart to near, under a little drag. The tool set up square; its points must give the same
              distance as its runners: scribe and measure back.
            </p>
            <Soon>
              {' '}
              {trials.map((t, i) => (
                <div key={i} className={parts.fields}>
                  <Figure
                    label={`Setting ${i + 1}, across`}
                    draftOf={mesh.key}
                    unit="mm"
                    value={t.acrossMm}
                    min={0.1}
                    max={1000}
                    onKeep={(v) =>
                      v !== null && set({ trials: trials.map((o, n) => (n === i ? { ...o, acrossMm: v } : o)) })
                    }
                  />
                  <div style={{ gridColumn: '2 / -1' }}>
                    <Pick label={`Setting ${i + 1}`} value={t.feel} of={FEELS} onPick={(how) => feel(i, how)} />
                  </div>
                </div>
              ))}
              <Group mt="sm">
                {trials.length < 9 && (
                  <Button
                    variant="default"
                    onClick={() =>
                      set({
                        trials: [
                          ...trials,
                          {
                            acrossMm: Math.round(((trials.at(-1)?.acrossMm ?? 0) - 0.04 * told.moduleMm) * 100) / 100,
                            feel: '',
                          },
                        ],
                      })
                    }
                  >
                    One more setting
                  </Button>
                )}
              </Group>
            </Soon>
            {range && (
              <p className={parts.next}>
                <Mark state="sound" label="smooth" /> Smooth from {mm(range.fromMm)} to {mm(range.toMm)}; the middle is{' '}
                <b>{mm(range.bestMm)}</b> across the runners, <b>{mm(range.bestMm - runnerMm)}</b> between the centres.
              </p>
            )}
            <div className={parts.fields}>
              <Figure
                label="Kept, across the runners"
                draftOf={mesh.key}
                unit="mm"
                value={sheet.keptMm}
                of={[DepthTrialChange, 'keptMm']}
                onKeep={(keptMm) => set({ keptMm })}
              />
            </div>
          </>
        )}
      </section>
      <section>
        <Soon>
          {' '}
          {all.map((m) => {
            const row = depths.find((d) => d.train === m.train && d.arbor === m.arbor)
            const state = row?.keptMm != null ? 'sound' : row && row.trials.length > 0 ? 'watch' : 'none'
            return (
              <button
                key={m.key}
                type="button"
                className={m === mesh ? `${plates.item} ${plates.here}` : plates.item}
                aria-pressed={m === mesh}
                onClick={() => goTo(m.key)}
              >
                <Mark state={state} label={{ sound: 'kept', watch: 'being tried', none: 'not tried' }[state]} />
                <span>
                  {m.driver} into {m.arbor}
                  <small>
                    {m.train}, {m.wheelTeeth} into {m.pinionLeaves}
                    {row?.keptMm != null && `, ${mm(row.keptMm)} kept`}
                  </small>
                </span>
              </button>
            )
          })}
        </Soon>
      </section>
    </div>
  )
}

/** The plates as they are against the tool: what a wheel of another module does to the depth. */
function PlatesSay({
  mesh,
  told,
  keptMm,
  runnerMm,
}: {
  mesh: MeshHere
  told: DepthSetting
  keptMm: number | null
  runnerMm: number
}) {
  if (mesh.foundMm === null)
    return <p className="quiet">The plates are not set out here, so nothing is held against them.</p>
  const wanted = keptMm === null ? told.centreDistanceMm : keptMm - runnerMm
  const off = mesh.foundMm - wanted
  const modules = (100 * off) / told.moduleMm
  return (
    <p>
      <Mark state={Math.abs(modules) < 10 ? 'sound' : 'watch'} /> The plates have {mm(mesh.foundMm)}:{' '}
      {Math.abs(off) < 0.005
        ? 'just what the tool says.'
        : `${mm(Math.abs(off))} ${off > 0 ? 'too far' : 'too near'}, ${Math.abs(modules).toFixed(0)} % of a module, against ${keptMm === null ? 'what is reckoned' : 'what was kept'}.`}
    </p>
  )
}

function meshesOf({ trainSheets, plateMap }: ReturnType<typeof useJobData>): MeshHere[] {
  return trainSheets.flatMap((sheet) =>
    sheet.arbors.slice(1).flatMap((a, i): MeshHere[] => {
      const below = sheet.arbors[i]
      if (!below || below.wheel === null || a.pinion === null) return []
      const placed = (name: string) => plateMap?.arbors.find((p) => p.train === sheet.train && p.name === name)
      const [from, to] = [placed(below.name), placed(a.name)]
      const foundMm =
        from?.xMm != null && from.yMm !== null && to?.xMm != null && to.yMm !== null
          ? distanceMm({ xMm: from.xMm, yMm: from.yMm }, { xMm: to.xMm, yMm: to.yMm })
          : null
      return [
        {
          key: `${sheet.train} ${a.name}`,
          train: sheet.train,
          driver: below.name,
          arbor: a.name,
          arborIndex: i + 1,
          wheelTeeth: below.wheel,
          pinionLeaves: a.pinion,
          moduleMm: to?.moduleMm ?? null,
          foundMm,
        },
      ]
    }),
  )
}
