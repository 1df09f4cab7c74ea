import { type StripStepRow } from '@treadle/contract'
import { assemblyPlan, ledKey, meshMarks, partsCount, type AssemblyItem, type DryVerdict } from '@treadle/core'
import { Button, Checkbox } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { memo, useState, type RefObject } from 'react'
import { DriveAgain } from '../../job/DriveAgain.tsx'
import { DryRun, dryPress, useDryRuns } from '../../job/DryRun.tsx'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations } from '../../job/useObservations.ts'
import { useWorkHeld } from '../../job/useWorkHeld.ts'
import { useStripLog } from '../../job/useStripLog.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useCamera } from '../../parts/useCamera.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { useLatest } from '../../parts/useLatest.ts'
import { useStop } from '../../parts/useStop.ts'
import styles from './Assemble.module.css'
import { LeftOver } from './LeftOver.tsx'
import { NextPart } from './NextPart.tsx'

type Item = AssemblyItem<StripStepRow>

/** The strip log read backwards and led: what goes in next, the train alone first, the plate closed, each train run dry. */
export function AssembleSurface() {
  const { job, clock, stripMarks, trainSheets } = useJobData()
  const seen = useObservations()
  const runs = useDryRuns()
  const log = useStripLog()
  const { steps: stripSteps } = log
  const camera = useCamera()
  const navigate = useNavigate()
  const [stop, goTo] = useStop()
  const [percent, setPercent] = useState(50)
  const [alone, setAlone] = useState(false)
  const trains = clock.trains.map((t) => t.train).filter((t) => job.scope !== 'one-train' || t === job.scopeTrain)
  const arbors = Object.fromEntries(trainSheets.map((s) => [s.train, s.arbors.map((a) => a.name)]))
  const plan: Item[] = job.partedAt === null ? assembledOnly(stripSteps) : assemblyPlan(stripSteps, trains, arbors)
  const { partsOut, partsBack, partsKept, leftOver } = partsCount(stripSteps)
  const done = (item: Item) =>
    item.kind === 'part'
      ? item.part.back || item.part.notBack !== ''
      : item.kind === 'led'
        ? seen.of(ledKey(item.key))?.answer === 'done'
        : runs.of(item.train).verdict !== ''
  const open = plan.filter((i) => !done(i))
  const chosen = plan.find((i) => i.key === stop)
  const item = chosen ?? open[0]
  const tick = (which: Item, on: boolean) => {
    if (which.kind === 'part')
      log.change(which.part, { back: on, notBack: '' }, `${on ? 'put in' : 'took out'} ${which.part.part}`)
    if (which.kind === 'led') seen.set(ledKey(which.key), { answer: on ? 'done' : 'not yet' })
  }
  const acts = useLatest({ tick, show: goTo })
  // Where it was never apart nothing goes between the plates.
  const held = useWorkHeld()({ work: 'assemble' })
  const click = job.partedAt === null ? null : held
  const ghost = item?.kind === 'part' && item.part.photoId !== null && camera.state === 'live'
  const tight = plan.find((i) => i.kind === 'dry' && runs.of(i.train).verdict === 'tight')
  usePedalAction(
    click && open.length > 0
      ? { label: 'Press to see to its click', hint: click.title, press: () => void navigate('../wheels') }
      : item && !done(item)
        ? item.kind === 'dry'
          ? dryPress(item.train, runs)
          : {
              label:
                item.kind === 'part'
                  ? `Press when it is in: ${item.part.part}`
                  : `Press when done: ${item.step.title.toLowerCase()}`,
              hint: `${open.length} to go`,
              press: () => {
                tick(item, true)
                if (chosen) goTo('')
                return item.kind === 'part' ? log.undo : () => tick(item, false)
              },
              ...(ghost && { held: { label: 'the old picture alone', while: setAlone } }),
            }
        : open.length > 0
          ? { label: 'Press to go on', press: () => goTo(open[0]?.key ?? '') }
          : job.partedAt !== null
            ? { label: 'Press to go on and oil it', hint: 'nothing is left over', press: () => void navigate('../oil') }
            : { label: 'Press to hear it', hint: 'nothing is left over', press: () => void navigate('../listen') },
  )
  if (plan.length === 0)
    return (
      <>
        <h2>Nothing was logged</h2>
        <p className={parts.say}>
          The assembly list is the strip log read backwards. <Link to="../strip">Take it apart step by step</Link>, and
          it stands here.
        </p>
      </>
    )
  return (
    <div className={parts.columns}>
      <section aria-live="polite">
        {click && (
          <div className={parts.asked}>
            <p>
              <Mark state="danger" label="danger" /> {click.title} <Link to="../wheels">Wheels</Link>
            </p>
          </div>
        )}
        {item === undefined || (open.length === 0 && !chosen) ? (
          <>
            <p className={styles.all}>{partsOut > 0 ? 'Everything that came out is back in.' : 'It is together.'}</p>
            {job.partedAt !== null && <DriveAgain seen={seen} />}
          </>
        ) : item.kind === 'part' ? (
          <NextPart
            key={item.key}
            step={item.part}
            camera={camera}
            clear={{ percent, set: setPercent, alone }}
            marks={marksFor(item.part)}
            onNotBack={(notBack) => {
              log.change(item.part, { notBack }, `left out ${item.part.part}`)
              goTo('')
            }}
          />
        ) : item.kind === 'led' ? (
          <>
            <h2 className={styles.nextPart}>{item.step.title}</h2>
            <p className={styles.how}>{item.step.does}</p>
            {item.step.caution !== undefined && <Caution>{item.step.caution}</Caution>}
          </>
        ) : (
          <>
            <h2 className={styles.nextPart}>Run the {item.train} train dry</h2>
            <DryRun key={item.train} train={item.train} runs={runs} />
          </>
        )}
        {tight && tight !== item && (
          <p>
            <Mark state="must" label="tight" /> The {tight.kind === 'dry' ? tight.train : ''} train was judged tight.{' '}
            <Button variant="subtle" size="compact-md" onClick={() => goTo(tight.key)}>
              Run it again
            </Button>
          </p>
        )}
        {log.undoable !== null && (
          <Button variant="subtle" mt="sm" onClick={log.undo}>
            Undo: {log.undoable}
          </Button>
        )}
        {leftOver.length > 0 && leftOver.length < stripSteps.length && <LeftOver steps={leftOver} onShow={goTo} />}
      </section>
      <section>
        <h2>Last out, first in</h2>
        <p>
          <Mark
            state={leftOver.length === 0 ? 'sound' : 'watch'}
            label={leftOver.length === 0 ? 'all back' : 'not all'}
          />{' '}
          {partsBack} of {partsOut} parts are back{partsKept > 0 && `, ${partsKept} do not go back`}.
        </p>
        <ol className={styles.back} aria-label="In the order in which it goes together">
          {plan.map((i) => (
            <li key={i.key} aria-current={i === item ? 'step' : undefined}>
              <Line item={i} done={done(i)} verdict={i.kind === 'dry' ? runs.of(i.train).verdict : ''} acts={acts} />
            </li>
          ))}
        </ol>
      </section>
    </div>
  )

  /** Marks made before parting that matter where this part goes in. */
  function marksFor(step: StripStepRow): string[] {
    const { strikeWork, moon, calendar } = clock.work
    return meshMarks({ trains: clock.trains, strikeWork, moon, calendar, pendulum: true })
      .filter((m) => MARKS_OF[step.tray].includes(m.key))
      .flatMap((m) => {
        const made = stripMarks.find((s) => s.key === m.key && s.state === 'done')
        return made ? [`${m.what}${made.note === '' ? '' : `: ${made.note}`}`] : []
      })
  }
}

/** Which marks matter to the parts of a train. */
const MARKS_OF: Record<StripStepRow['tray'], string[]> = {
  case: ['moon', 'calendar', 'nut'],
  going: ['clicks'],
  strike: ['clicks', 'strike-lock', 'warning', 'count-wheel', 'gathering-pallet'],
  chime: ['clicks', 'chime'],
}

/** A movement whose plates were never parted only gets back what came off it. */
function assembledOnly(log: StripStepRow[]): Item[] {
  return [...log].sort((a, b) => b.position - a.position).map((part) => ({ kind: 'part', key: part.id, part }))
}

interface LineProps {
  item: Item
  done: boolean
  /** how a dry run was judged */
  verdict: DryVerdict
  acts: RefObject<{ tick: (item: Item, on: boolean) => void; show: (key: string) => void }>
}

/** One line of the list; drawn anew only when its own thing has changed, so that a long list is quick under the foot. */
const Line = memo(
  function OneLine({ item, done, verdict, acts }: LineProps) {
    const show = () => acts.current.show(item.key)
    const tick = (on: boolean) => acts.current.tick(item, on)
    if (item.kind === 'dry')
      return (
        <button type="button" className={styles.line} onClick={show}>
          <Mark
            state={verdict === 'free' ? 'sound' : verdict === 'tight' ? 'must' : 'none'}
            label={verdict === '' ? 'not judged' : verdict}
          />
          <b>Run the {item.train} train dry</b>
        </button>
      )
    if (item.kind === 'led')
      return (
        <Checkbox
          size="md"
          label={<b>{item.step.title}</b>}
          checked={done}
          onChange={(e) => tick(e.currentTarget.checked)}
        />
      )
    const { part, count, screws, marks, back, notBack } = item.part
    return (
      <div className={styles.partLine}>
        <Checkbox
          size="md"
          label={`${part}${count > 1 ? `, ${count} parts in all` : ''}`}
          description={notBack === '' ? [screws, marks].filter(Boolean).join('; ') : `Does not go back: ${notBack}`}
          checked={back}
          onChange={(e) => tick(e.currentTarget.checked)}
        />
        <Button variant="subtle" size="compact-sm" onClick={show} aria-label={`Show ${part}`}>
          Show
        </Button>
      </div>
    )
  },
  (a, b) =>
    a.done === b.done &&
    a.verdict === b.verdict &&
    a.item.key === b.item.key &&
    (a.item.kind !== 'part' || (b.item.kind === 'part' && a.item.part === b.item.part)),
)
