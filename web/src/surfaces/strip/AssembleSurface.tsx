import { TRAY_TITLES, type StripStepRow } from '@treadle/contract'
import { assemblyOf } from '@treadle/core'
import { Button, Checkbox } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Strip.module.css'
import { useStripLog } from './useStripLog.ts'

/** The strip log read backwards: what goes in next, with its picture, its screws and its marks. */
export function AssembleSurface() {
  const { job, stripSteps, events } = useJobData()
  const change = useChange()
  const dry = events.some((e) => e.kind === 'dry')
  const oiled = events.some((e) => e.kind === 'oiled')
  const happened = (kind: 'dry' | 'oiled') => {
    const id = uuid()
    const path = `/jobs/${job.id}/events/${id}`
    change.mutate(
      { method: 'PUT', path, body: { id, version: 0, at: new Date().toISOString(), kind, turns: null, note: '' } },
      { onError: sayNotKept },
    )
    return () => change.mutate({ method: 'DELETE', path })
  }
  const log = useStripLog()
  const navigate = useNavigate()
  const { steps, partsOut, partsBack, leftOver } = assemblyOf(stripSteps)
  const next = leftOver[0]
  const tick = (step: StripStepRow, back: boolean) =>
    log.change(step, { back }, `${back ? 'put in' : 'took out'} ${step.part}`)
  usePedalAction(
    next
      ? {
          label: `Press when it is in: ${next.part}`,
          hint: `${leftOver.length} to go`,
          press: () => {
            tick(next, true)
            return log.undo
          },
        }
      : job.partedAt !== null && !dry
        ? {
            label: 'Press once it has run dry',
            hint: 'on a fraction of a turn, before any oil; it backs off at the end',
            press: () => happened('dry'),
          }
        : job.partedAt !== null && !oiled
          ? {
              label: 'Press once it is oiled',
              hint: 'sinks, springs, faces; nothing on teeth',
              press: () => happened('oiled'),
            }
          : { label: 'Press to hear it', hint: 'nothing is left over', press: () => void navigate('../listen') },
  )
  if (steps.length === 0)
    return (
      <>
        <h2>Nothing was logged</h2>
        <p className={parts.say}>
          The assembly list is the strip log read backwards. <Link to="../strip">Take it apart step by step</Link>, and
          it stands here.
        </p>
        {job.partedAt !== null && <DryThenOil dry={dry} oiled={oiled} onSay={happened} />}
      </>
    )
  return (
    <div className={parts.columns}>
      <section aria-live="polite">
        {next ? <Next step={next} /> : <p className={styles.all}>Everything that came out is back in.</p>}
        {log.undoable !== null && (
          <Button variant="subtle" mt="sm" onClick={log.undo}>
            Undo: {log.undoable}
          </Button>
        )}
        {leftOver.length === 0 && job.partedAt !== null && <DryThenOil dry={dry} oiled={oiled} onSay={happened} />}
        {leftOver.length > 0 && leftOver.length < steps.length && (
          <>
            <h2 className={parts.next}>Not back yet</h2>
            <ul className={styles.left} aria-label="Not back yet">
              {leftOver.map((s) => (
                <li key={s.id}>
                  {s.photoId !== null && <img src={`/api/photos/${s.photoId}/thumb`} alt="" loading="lazy" />}
                  <span>
                    {s.part}
                    {s.count > 1 && `, ${s.count} parts in all`}
                  </span>
                </li>
              ))}
            </ul>
          </>
        )}
      </section>
      <section>
        <h2>Last out, first in</h2>
        <p>
          <Mark
            state={leftOver.length === 0 ? 'sound' : 'watch'}
            label={leftOver.length === 0 ? 'all back' : 'not all'}
          />{' '}
          {partsBack} of {partsOut} parts are back.
        </p>
        <ol className={styles.back}>
          {steps.map((s) => (
            <li key={s.id}>
              <Checkbox
                size="md"
                label={`${s.part}${s.count > 1 ? `, ${s.count} parts in all` : ''}`}
                description={[s.screws, s.marks].filter(Boolean).join('; ')}
                checked={s.back}
                onChange={(e) => tick(s, e.currentTarget.checked)}
              />
            </li>
          ))}
        </ol>
      </section>
    </div>
  )
}

function Next({ step }: { step: StripStepRow }) {
  return (
    <>
      <h2 className={styles.nextPart}>
        {step.part}
        {step.count > 1 && `, ${step.count} parts in all`}
      </h2>
      <p className={styles.how}>
        {[`From the ${TRAY_TITLES[step.tray].toLowerCase()}`, step.screws, step.marks, step.remark]
          .filter(Boolean)
          .join('; ')}
        .
      </p>
      {step.photoId !== null && (
        <img className={styles.big} src={`/api/photos/${step.photoId}/screen`} alt={`As it came out: ${step.part}`} />
      )}
    </>
  )
}

/** Dry first, then oil: a tight train hides under oil. What was said can be taken back in the log of its rate. */
function DryThenOil({ dry, oiled, onSay }: { dry: boolean; oiled: boolean; onSay: (kind: 'dry' | 'oiled') => void }) {
  return (
    <div className={parts.next}>
      <p>
        <Mark state={dry ? 'sound' : 'none'} label={dry ? 'done' : 'open'} />{' '}
        {dry
          ? 'It ran dry, on little power.'
          : 'Dry, on a fraction of a turn or a light weight, it must run by itself.'}{' '}
        {!dry && (
          <Button variant="default" size="sm" onClick={() => onSay('dry')}>
            It runs dry
          </Button>
        )}
      </p>
      <p>
        <Mark state={oiled ? 'sound' : 'none'} label={oiled ? 'done' : 'open'} />{' '}
        {oiled ? 'It is oiled.' : 'Then oil: a little in each sink, grease where things slide, nothing on teeth.'}{' '}
        {dry && !oiled && (
          <Button variant="default" size="sm" onClick={() => onSay('oiled')}>
            It is oiled
          </Button>
        )}
      </p>
    </div>
  )
}
