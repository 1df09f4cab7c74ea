import { jobChangeOf, type CardChoices } from '@treadle/contract'
import { mayClose, type Gate } from '@treadle/core'
import { Button, Checkbox, Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { Link } from 'react-router'
import { sentenceOf, useChange, useOils, useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useReopen } from '../../job/useReopen.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { OverrideForm } from '../../job/OverrideForm.tsx'
import { usePaper } from '../../parts/usePaper.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import paper from '../../parts/paper.module.css'
import styles from './Card.module.css'
import { CardChoicesForm } from './CardChoicesForm.tsx'
import { CardPaper } from './CardPaper.tsx'

/** Page size and margin of each paper; a strip goes inside a case’s door. */
const PAPERS: Record<CardChoices['paper'], [size: string, margin: string]> = {
  A5: ['A5', '10mm'],
  A4: ['A4', '14mm'],
  strip: ['99mm 297mm', '7mm'],
}

/** Handing over: the gates, what came with it ticked off, and the owner's card to print. */
export function CardSurface() {
  const data = useJobData()
  const { job, clock, gates } = data
  const { data: settings } = useSettings()
  const { data: oils } = useOils()
  const change = useChange()
  const refused = (error: Error) =>
    notifications.show({ color: 'red', title: 'Not done', message: sentenceOf(error), autoClose: 10_000 })
  const closed = job.closedAt !== null
  const ready = mayClose(gates)
  const notBack = job.cameWith.filter((c) => c.state !== 'missing' && !c.returned)
  const print = () => window.print()
  const reopen = useReopen(job.id)
  const handOver = () =>
    change.mutate({ method: 'POST', path: `/jobs/${job.id}/close`, body: {} }, { onError: refused })
  const [printed, setPrinted] = useState(false)
  usePedalAction(
    !closed && ready && job.bay === 'return' && printed
      ? { label: 'Press to hand it over and close the job', press: handOver }
      : {
          label: 'Press to print the owner’s card',
          press: () => {
            print()
            setPrinted(true)
          },
        },
  )
  usePaper(...PAPERS[clock.card?.paper ?? 'A5'])
  if (!settings || !oils) return null
  const tick = (index: number, returned: boolean) =>
    change.mutate(
      {
        method: 'PATCH',
        path: `/jobs/${job.id}`,
        body: { ...jobChangeOf(job), cameWith: job.cameWith.map((c, i) => (i === index ? { ...c, returned } : c)) },
      },
      { onError: refused },
    )
  return (
    <div className={styles.columns}>
      <CardPaper data={data} oils={oils} settings={settings} />
      <section className={`${paper.typed} ${styles.beside}`}>
        <Group>
          <Button size="lg" onClick={print}>
            Print the card
          </Button>
        </Group>
        <CardChoicesForm />
        <h2>What came with it</h2>
        {notBack.length > 0 && (job.bay === 'return' || closed) && (
          <Caution>
            <strong className={styles.loud}>Not here: {notBack.map((c) => c.name).join(', ')}.</strong> It came with the
            clock. Find it before the clock leaves, or tell the owner now.
          </Caution>
        )}
        {job.cameWith.map((thing, i) => (
          <Checkbox
            key={thing.name}
            my={10}
            size="md"
            label={`${thing.name}${thing.hung ? `, ${thing.hung}` : ''}${thing.massKg ? `, ${thing.massKg} kg` : ''}${thing.state === 'present' ? '' : `, ${thing.state} when it came`}`}
            checked={thing.returned}
            disabled={closed || thing.state === 'missing'}
            onChange={(e) => tick(i, e.currentTarget.checked)}
          />
        ))}
        {job.cameWith.length === 0 && <p className="quiet">Nothing was written down.</p>}
        <h2>Before it goes</h2>
        {gates.map((gate) => (
          <GateLine key={gate.name} gate={gate} jobId={job.id} closed={closed} />
        ))}
        {closed ? (
          <Button variant="default" mt="md" onClick={reopen}>
            Reopen this job
          </Button>
        ) : (
          <Button mt="md" size="lg" disabled={!ready} onClick={handOver}>
            Hand over and close
          </Button>
        )}
        {!ready && !closed && (
          <p className="quiet">
            It closes when every gate is passed, or overridden with a reason. What this job has no need of is said once,
            under <Link to="../visit">This visit</Link>.
          </p>
        )}
      </section>
    </div>
  )
}

function GateLine({ gate, jobId, closed }: { gate: Gate; jobId: string; closed: boolean }) {
  const [open, setOpen] = useState(false)
  const state = gate.passed
    ? 'sound'
    : gate.notNeeded !== null
      ? 'none'
      : gate.overriddenBecause !== null
        ? 'watch'
        : 'must'
  return (
    <div className={styles.gate}>
      <Mark
        state={state}
        label={{ sound: 'passed', none: 'not needed', watch: 'overridden', must: 'not passed' }[state]}
      />
      <div>
        <b>{gate.title}</b>
        <p className="quiet">
          {gate.notNeeded === null ? gate.reason : `Not needed. ${gate.notNeeded}.`}
          {gate.overriddenBecause !== null && ` Overridden: ${gate.overriddenBecause}`}
        </p>
        {state === 'must' && !closed && !open && (
          <Button variant="subtle" size="compact-md" onClick={() => setOpen(true)}>
            Override…
          </Button>
        )}
        {open && <OverrideForm jobId={jobId} gate={gate.name} onDone={() => setOpen(false)} />}
      </div>
    </div>
  )
}
