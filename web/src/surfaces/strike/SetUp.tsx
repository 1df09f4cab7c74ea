import { strikeForgives, strikeSteps, type StrikeKind } from '@treadle/core'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations } from '../../job/useObservations.ts'
import parts from '../../parts/parts.module.css'
import { Steps } from '../../parts/Steps.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'

/** Which marks made before parting tell how the strike stood. */
const MARKS = ['strike-lock', 'warning', 'count-wheel', 'gathering-pallet', 'chime']

/** Setting the strike up, step by step, with the marks that were made before it came apart. */
export function SetUp({ kind, pedal, onDone }: { kind: StrikeKind; pedal: boolean; onDone: () => void }) {
  const { stripMarks, stripSteps } = useJobData()
  const seen = useObservations()
  const steps = strikeSteps(kind)
  const key = (k: string) => `strike-set:${k}`
  const done = steps.filter((s) => seen.of(key(s.key))?.answer === 'done').map((s) => s.key)
  const tick = (k: string, on: boolean) => seen.set(key(k), { answer: on ? 'done' : 'not yet' })
  const next = steps.find((s) => !done.includes(s.key))
  usePedalAction(
    !pedal
      ? null
      : next
        ? {
            label: `Press when done: ${next.title.toLowerCase()}`,
            hint: `${done.length + 1} of ${steps.length}`,
            press: () => {
              tick(next.key, true)
              return () => tick(next.key, false)
            },
          }
        : { label: 'Press to count it round', hint: 'twelve hours, each against what it should be', press: onDone },
  )
  const marks = [
    ...stripMarks.filter((m) => MARKS.includes(m.key) && m.state === 'done' && m.note !== '').map((m) => m.note),
    ...stripSteps
      .filter((s) => s.tray !== 'going' && s.tray !== 'case' && s.marks !== '')
      .map((s) => `${s.part}: ${s.marks}`),
  ]
  const { matters, forgives } = strikeForgives(kind)
  return (
    <>
      {marks.length > 0 && (
        <div className={parts.before}>
          <b>As it was marked</b>
          <ul>
            {marks.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </div>
      )}
      <Steps
        steps={steps}
        done={done}
        onDone={(now) => {
          for (const s of steps) if (now.includes(s.key) !== done.includes(s.key)) tick(s.key, now.includes(s.key))
        }}
      />
      <h3>What matters</h3>
      <ul>
        {matters.map((m) => (
          <li key={m}>{m}</li>
        ))}
      </ul>
      <h3>What forgives</h3>
      <ul>
        {forgives.map((f) => (
          <li key={f}>{f}</li>
        ))}
      </ul>
    </>
  )
}
