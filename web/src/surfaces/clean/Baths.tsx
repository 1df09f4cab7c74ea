import type { CleanPartRow, TimerRow } from '@treadle/contract'
import { sortIntoBaths, type Bath } from '@treadle/core'
import { Button, Checkbox, Group, NativeSelect } from '@mantine/core'
import { memo, useCallback } from 'react'
import { Link, useNavigate } from 'react-router'
import { useRowsSaid } from '../../data/onTheWay.ts'
import { useTable } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useLatest } from '../../parts/useLatest.ts'
import { useObservations } from '../../job/useObservations.ts'
import { useRows } from '../../job/useRows.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { useMoveTo } from '../../job/useMoveTo.ts'
import { AddPart } from './AddPart.tsx'
import { Pegging } from './Pegging.tsx'
import { pegKey, pegPlaces } from './pegging.ts'
import { RunningTimers } from './RunningTimers.tsx'
import { callsAllowed } from './timerCalls.ts'
import { timerFor } from './timers.ts'

/** The parts list sorted into baths by what each part is; what must stay dry, and why; the clocks that run. */
export function Baths() {
  const data = useJobData()
  const { job, holes } = data
  // What was pressed shows at once: a part is not left lying in the bath while a server answers.
  const cleanParts = useRowsSaid(data, 'clean-parts', data.cleanParts)
  const timers = useRowsSaid(data, 'timers', data.timers)
  const { data: table } = useTable('baths')
  const partRows = useRows<CleanPartRow>('clean-parts')
  const timerRows = useRows<TimerRow>('timers')
  const seen = useObservations()
  const baths = table?.values.baths ?? []
  const latest = useLatest(seen)
  const prefer = useCallback((bath: string) => latest.current.set('bath', { answer: bath }), [latest])
  const preferred = seen.of('bath')?.answer ?? baths[0]?.key ?? ''
  const waiting = cleanParts.filter((p) => !p.done)
  const sorted = sortIntoBaths(waiting, baths, preferred)
  const running = timers.filter((t) => !t.stopped)
  const begin = (bath: Bath, before?: TimerRow) => {
    void callsAllowed()
    const timer = timerFor(bath, before)
    if (timer) timerRows.put(timer)
  }
  const stop = (timer: TimerRow) => {
    timerRows.put({ ...timer, stopped: true })
    // What must follow at once begins at once: a part is not left lying wet.
    const bath = baths.find((b) => b.key === timer.bath)
    if (bath) begin(bath, timer)
  }
  const next = running[0]
  const first = sorted.baths.find((b) => b.parts.length > 0)
  const navigate = useNavigate()
  const moveTo = useMoveTo(job)
  /** A bath that its parts have been in, all its rinses with it; what follows is to look at them. */
  const hadIts = (bath: Bath) => timers.some((t) => t.bath === bath.key && t.stopped && t.step >= bath.then.length)
  const allClean = (bath: Bath, inside: CleanPartRow[]) => {
    for (const part of inside) partRows.put({ ...part, done: true })
    // What is clean and dry is in no bath any more.
    for (const timer of running) if (timer.bath === bath.key) timerRows.put({ ...timer, stopped: true })
  }
  const toPeg = job.partedAt === null ? undefined : pegPlaces(holes).find((p) => seen.of(pegKey(p))?.answer !== 'clean')
  usePedalAction(
    next
      ? { label: `Press when it is out: ${next.title}`, press: () => stop(next) }
      : first && hadIts(first.bath)
        ? {
            label: 'Press when they are clean and dry',
            hint: first.parts.map((p) => p.name).join(', '),
            press: () => {
              const inside = first.parts
              allClean(first.bath, inside)
              return () => {
                for (const part of inside) partRows.put({ ...part, done: false, version: part.version + 1 })
              }
            },
          }
        : first
          ? {
              label: `Press when they are in: ${first.bath.title}`,
              hint: `${first.bath.minutes} min, ${first.parts.length} ${first.parts.length === 1 ? 'part' : 'parts'}`,
              press: () => begin(first.bath),
            }
          : cleanParts.length > 0 && waiting.length === 0 && toPeg !== undefined
            ? {
                label: `Press when it is pegged clean: ${toPeg}`,
                press: () => {
                  seen.set(pegKey(toPeg), { answer: 'clean' })
                  return () => seen.set(pegKey(toPeg), { answer: 'not yet' })
                },
              }
            : cleanParts.length > 0 && waiting.length === 0 && job.bay === 'strip' && job.partedAt !== null
              ? {
                  label: 'Press to go on and mend it',
                  hint: 'everything is clean, dry and pegged',
                  press: () => {
                    const back = moveTo('mend')
                    void navigate(`/jobs/${job.id}/plates`)
                    return back
                  },
                }
              : null,
  )
  return (
    <div className={parts.columns}>
      <section>
        <RunningTimers running={running} onStop={stop} />
        {sorted.baths
          .filter((b) => b.parts.length > 0)
          .map(({ bath, parts: inside }, i) => (
            <article key={bath.key}>
              <h2>{bath.title}</h2>
              <p>
                {bath.minutes} minutes, then{' '}
                {bath.then.map((t) => `${t.title.toLowerCase()} (${t.minutes} min)`).join(', ')}.
              </p>
              <Caution second={i > 0}>{bath.caution} Follow the maker’s safety sheet and your local rules.</Caution>
              {inside.some((p) => p.material === 'mainspring') && (
                <p className={parts.say}>A spring is never left wet: wipe it dry at once, end to end, and oil it.</p>
              )}
              <PartList parts={inside} rows={partRows} />
              <Group mt="xs" mb="lg">
                {!running.some((t) => t.bath === bath.key) && (
                  <Button onClick={() => begin(bath)}>They are in: start {bath.minutes} minutes</Button>
                )}
                <Button variant="default" onClick={() => allClean(bath, inside)}>
                  All clean and dry
                </Button>
              </Group>
            </article>
          ))}
        {sorted.dry.length > 0 && (
          <article>
            <h2>Stays dry</h2>
            <ul className={parts.list}>
              {sorted.dry.map(({ part, why }) => (
                <li key={part.id}>
                  <Mark state="must" label="keep out" />
                  <span className={parts.grow}>
                    <strong>{part.name}</strong>: {why}.
                  </span>
                  <Button variant="default" size="sm" onClick={() => partRows.put({ ...part, done: true })}>
                    Done by hand
                  </Button>
                </li>
              ))}
            </ul>
          </article>
        )}
        {waiting.length === 0 && (
          <p className={parts.say}>
            {cleanParts.length === 0
              ? 'List the parts by what they are made of; each is sorted into the bath that it can bear, or kept dry.'
              : 'Every part on the list is clean and dry.'}
          </p>
        )}
      </section>
      <section>
        <Preferred value={preferred} baths={table?.values.baths} onPick={prefer} />
        <AddPart />
        {cleanParts.some((p) => p.done) && (
          <>
            <h2 className={parts.next}>Clean and dry</h2>
            <PartList parts={cleanParts.filter((p) => p.done)} rows={partRows} />
          </>
        )}
        <Pegging seen={seen} />
      </section>
    </div>
  )
}

/** Drawn anew only when the choice changed. */
const Preferred = memo(function Preferred({
  value,
  baths = [],
  onPick,
}: {
  value: string
  baths: Bath[] | undefined
  onPick: (bath: string) => void
}) {
  return (
    <>
      <NativeSelect
        label="This workshop prefers, for this clock"
        value={value}
        onChange={(e) => onPick(e.currentTarget.value)}
        data={baths.map((b) => ({ value: b.key, label: b.title }))}
      />
      <p className="quiet">
        Recipes are the workshop’s own: <Link to="/tables/baths">change them</Link>.
      </p>
    </>
  )
})

interface PartRows {
  put: (row: CleanPartRow) => void
  remove: (id: string) => void
}

function PartList({ parts: list, rows }: { parts: CleanPartRow[]; rows: PartRows }) {
  return (
    <ul className={parts.list}>
      {list.map((part) => (
        <li key={part.id}>
          <Checkbox
            size="md"
            className={parts.grow}
            label={part.name}
            description={`${part.finish === 'bare' ? '' : part.finish} ${part.material}`.trim()}
            checked={part.done}
            onChange={(e) => rows.put({ ...part, done: e.currentTarget.checked })}
          />
          <Button variant="subtle" size="sm" aria-label={`Take off: ${part.name}`} onClick={() => rows.remove(part.id)}>
            Take off
          </Button>
        </li>
      ))}
    </ul>
  )
}
