import { TRAY_TITLES, type StripStepRow } from '@treadle/contract'
import { assemblyOf } from '@treadle/core'
import { Button, Checkbox } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Strip.module.css'
import { useStripLog } from './useStripLog.ts'

/** The strip log read backwards: what goes in next, with its picture, its screws and its marks. */
export function AssembleSurface() {
  const { stripSteps } = useJobData()
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
      : steps.length > 0
        ? { label: 'Press to hear it', hint: 'nothing is left over', press: () => void navigate('../listen') }
        : null,
  )
  if (steps.length === 0)
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
        {next ? <Next step={next} /> : <p className={styles.all}>Everything that came out is back in.</p>}
        {log.undoable !== null && (
          <Button variant="subtle" mt="sm" onClick={log.undo}>
            Undo: {log.undoable}
          </Button>
        )}
        {leftOver.length > 0 && leftOver.length < steps.length && (
          <>
            <h2 className={parts.next}>Not back yet</h2>
            <ul className={styles.left} aria-label="Not back yet">
              {leftOver.map((s) => (
                <li key={s.id}>
                  {s.photoId !== null && <img src={`/api/photos/${s.photoId}/thumb`} alt="" loading="lazy" />}
                  <span>
                    {s.part}
                    {s.count > 1 && ` × ${s.count}`}
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
                label={`${s.part}${s.count > 1 ? ` × ${s.count}` : ''}`}
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
        {step.count > 1 && ` × ${step.count}`}
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
