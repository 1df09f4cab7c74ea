import { Link } from 'react-router'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { MarksFirst } from './MarksFirst.tsx'
import { NextStep } from './NextStep.tsx'
import { StepList } from './StepList.tsx'
import { useOpenMarks } from '../../job/useOpenMarks.ts'
import { useStripLog } from '../../job/useStripLog.ts'

/** Taking apart: what must be marked first, then the log, a picture and a press for each step. */
export function StripSurface() {
  const { job, stripSteps } = useJobData()
  const log = useStripLog()
  const open = useOpenMarks()
  const out = stripSteps.reduce((n, s) => n + s.count, 0)
  return (
    <div className={parts.columns}>
      <section>
        <NextStep log={log} active={open.length === 0 || job.partedAt !== null} />
        <h2 className={parts.next}>
          {stripSteps.length === 0
            ? 'The log is empty'
            : `${stripSteps.length} ${stripSteps.length === 1 ? 'step' : 'steps'}, ${out} ${out === 1 ? 'part' : 'parts'} out`}
        </h2>
        {stripSteps.length === 0 ? (
          <p className={parts.say}>
            Say what comes off first, put it in its tray, and press the pedal: the picture is taken and the next step
            begins. Read backwards, this log is how it goes together again.
          </p>
        ) : (
          <StepList log={log} />
        )}
      </section>
      <section>
        <MarksFirst active={open.length > 0 && job.partedAt === null} />
        {job.partedAt === null && open.length === 0 && (
          <p>
            <Mark state="sound" label="in order" /> Every mesh is marked or waived. What is in front of the plates may
            come off now; the plates themselves wait for <Link to="../power">the power gate</Link>.
          </p>
        )}
      </section>
    </div>
  )
}
