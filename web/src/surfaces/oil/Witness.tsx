import {
  WITNESS_MOMENTS,
  WITNESS_STATE_TITLES,
  WITNESS_STATES,
  WITNESS_TITLES,
  type WitnessMoment,
  type WitnessRow,
} from '@treadle/contract'
import { NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { sayNotKept } from '../../data/queries.ts'
import { PhotoPicker, sendPhoto } from '../../job/PhotoPicker.tsx'
import { SinksSeen } from '../../job/SinksSeen.tsx'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Pick } from '../../parts/Pick.tsx'
import parts from '../../parts/parts.module.css'

/** Pictures of the sinks as a witness: freshly oiled, at the trial’s end, and as the clock comes back; side by side. */
export function Witness() {
  const { job, clock, witnesses, events } = useJobData()
  const rows = useRows<WitnessRow>('witnesses', 'witnesses', 'oils')
  const oiled = events.some((e) => e.kind === 'oiled')
  const tried = events.some((e) => e.kind === 'trial')
  const [moment, setMoment] = useState<WitnessMoment>(oiled ? (tried ? 'trial' : 'oiled') : 'visit')
  const [side, setSide] = useState<'front' | 'back'>('front')
  const take = (file: File) =>
    void sendPhoto(job.id, file, `Sinks, ${side}, ${WITNESS_TITLES[moment]}`).then(
      (photoId) => rows.put({ id: uuid(), version: 0, moment, side, photoId, state: '', note: '' }),
      sayNotKept,
    )
  return (
    <section className={parts.next}>
      <h2>The sinks bear witness</h2>
      <p className={parts.say}>
        The same picture each time: freshly oiled, at the trial’s end, and when it comes back. They tell which oil
        stays.
      </p>
      <Pick label="When" value={moment} of={WITNESS_MOMENTS.map((m) => [m, WITNESS_TITLES[m]])} onPick={setMoment} />
      <Pick label="Side" value={side} of={['front', 'back']} onPick={setSide} />
      <PhotoPicker files={[]} onChange={([file]) => file && take(file)} />
      <SinksSeen
        clockId={clock.id}
        judge={(w) => {
          const mine = witnesses.find((row) => row.id === w.id)
          if (!mine) return null
          return (
            <NativeSelect
              aria-label={`The oil, ${w.side}, ${WITNESS_TITLES[w.moment]}`}
              value={mine.state}
              onChange={(e) => rows.set(mine, mine, { state: e.currentTarget.value as WitnessRow['state'] })}
              data={WITNESS_STATES.map((value) => ({
                value,
                label: `The oil ${WITNESS_STATE_TITLES[value]}`.replace('The oil not', 'Not'),
              }))}
            />
          )
        }}
        onRemove={(w) => (witnesses.some((row) => row.id === w.id) ? () => rows.remove(w.id) : null)}
      />
    </section>
  )
}
