import { newEvent } from '@treadle/contract'
import { Button, Checkbox, Textarea } from '@mantine/core'
import { v5 } from 'uuid'
import { useDraft } from '../../parts/useDraft.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useObservations } from '../../job/useObservations.ts'
import { whenShort } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { sayNotKept, useChange } from '../../data/queries.ts'

const NAMESPACE = '8e0d8c1b-3a52-4d0e-9d4e-2f8f54c4b6a7'

interface PlaceStep {
  key: string
  says: string
  weightsOnly?: boolean
}

const STEPS: PlaceStep[] = [
  {
    key: 'clear',
    says: 'Children and animals away, a cloth under the work, pendulum off before its suspension is kinked.',
  },
  {
    key: 'weights',
    says: 'Weights off by gloved hands, each set down with where it hung; lines wired so that they do not run.',
    weightsOnly: true,
  },
  { key: 'look', says: 'Look before oiling: long dry and black means worn, and then oil is no cure. Say so now.' },
  {
    key: 'peg',
    says: 'Each sink pegged with a pointed stick and a little solvent on it, and wiped; never sprayed: spray drips, leaves a film and draws the oil away.',
  },
  { key: 'oil', says: 'One small drop in each pivot sink, half full at most: too little is better than too much.' },
  {
    key: 'grease',
    says: 'A trace on clicks, hammer tails, lifting faces and pallet faces; none on teeth, leaves or motion work.',
  },
  { key: 'run', says: 'Set up again, in beat, hands and strike tried.' },
]

/** Oiling in place, at the owner’s house: its own plan, kept as the stop-gap that it is. */
export function InPlace() {
  const { clock, job } = useJobData()
  const seen = useObservations()
  const done = seen.of('in-place')?.answer === 'done'
  const reach = seen.of('in-place not reached')?.note ?? ''
  const { row: draft, set, forget } = useDraft({ note: reach }, `in-place ${job.id}`)
  const { note } = draft
  const steps = STEPS.filter((s) => !s.weightsOnly || clock.trains.some((t) => t.power === 'weight'))
  const is = (step: PlaceStep) => seen.of(`in-place ${step.key}`)?.answer === 'done'
  const next = steps.find((s) => !is(s))
  const tick = (step: PlaceStep, on: boolean) => seen.set(`in-place ${step.key}`, { answer: on ? 'done' : 'not yet' })
  const change = useChange()
  // Oiled is oiled: its rate begins anew, and its age is counted from now on.
  const oiled = `/jobs/${job.id}/events/${v5(`${job.id} oiled in place`, NAMESPACE)}`
  const finish = () => {
    seen.set('in-place', { answer: 'done', note: note.trim() === '' ? '' : `Not reached: ${note.trim()}` })
    const body = newEvent(oiled.slice(-36), 'oiled', new Date().toISOString())
    change.mutate({ method: 'PUT', path: oiled, body: { ...body, note: 'In place.' } }, { onError: sayNotKept })
  }
  const takeBack = () => {
    seen.takeBack('in-place')
    change.mutate({ method: 'DELETE', path: oiled })
  }
  usePedalAction(
    next
      ? {
          label: `Press when done: ${next.says.split(/[:;,.]/)[0]?.toLowerCase()}`,
          press: () => {
            tick(next, true)
            return () => tick(next, false)
          },
        }
      : done
        ? null
        : { label: 'Press to record it as a stop-gap', press: finish },
  )
  return (
    <div className={parts.columns}>
      <section>
        <h2>Oil it in place</h2>
        <Caution>
          The spring is wound and stays so: keep fingers and tools out of the train. Solvent by the drop, no flame near
          it, a window open.
        </Caution>
        <ul className={parts.list}>
          {steps.map((step) => (
            <li key={step.key}>
              <Checkbox
                size="md"
                label={step.says}
                checked={is(step)}
                onChange={(e) => tick(step, e.currentTarget.checked)}
              />
            </li>
          ))}
        </ul>
        <Textarea
          label="What could not be reached"
          autosize
          minRows={2}
          value={note}
          onChange={(e) => set({ note: e.currentTarget.value })}
          onBlur={() => {
            if (note !== reach) seen.set('in-place not reached', { note })
            forget()
          }}
          maw="40rem"
        />
      </section>
      <section>
        <h2>It is a stop-gap</h2>
        <p className={parts.say}>
          Fresh oil on old dirt is better than running dry, and no more. It is recorded as that, and the owner is asked
          back after one year instead of the workshop’s usual time.
        </p>
        {done ? (
          <p>
            <Mark state="watch" label="stop-gap" /> Recorded {whenShort(seen.of('in-place')?.at ?? '')} as a stop-gap.{' '}
            <Button variant="subtle" size="compact-md" onClick={takeBack}>
              Take back
            </Button>
          </p>
        ) : (
          <Button disabled={next !== undefined} onClick={finish} mt="sm">
            Record it as oiled in place
          </Button>
        )}
      </section>
    </div>
  )
}
