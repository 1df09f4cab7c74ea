import { GateOverride, POWER_METHOD_TITLES, POWER_TITLES, type Train } from '@treadle/contract'
import { POWER_METHODS } from '@treadle/core'
import { Button, Checkbox, NativeSelect, Textarea } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { benchName } from '../../app/bench.ts'
import { sentenceOf, useChange } from '../../app/queries.ts'
import { useJobData } from '../../job/JobPage.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { whenShort } from '../../parts/when.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Power.module.css'

type Method = (typeof POWER_METHODS)[number]

/** Each kind of power: how it is usually taken off, and the caution of the trade at that step. */
const CARE: Record<Train['power'], { method: Method; steps: string }> = {
  spring: {
    method: 'let-down',
    steps:
      'Eye protection and leather gloves. Movement held fast. A key that fits the square; take the load on the key, lift the click, let the handle slip a quarter turn at a time. Old click work may fail at any moment.',
  },
  weight: {
    method: 'weight-off',
    steps:
      'Run it down or hold it, then lift the weight off its hook; feet and glass out of the way. A tall case without its movement is top-heavy: a second person holds it.',
  },
  fusee: {
    method: 'let-down',
    steps:
      'As for a spring, and the set-up tension on the barrel ratchet comes off last, with a key on the barrel square. Eye protection and gloves throughout.',
  },
  remontoire: {
    method: 'let-down',
    steps: 'Let down the main power first, then the second store. It is wound until you have felt it slack.',
  },
}

/** The power gate: no plate is parted before every train is confirmed off by somebody who tried it by hand. */
export function PowerSurface() {
  const data = useJobData()
  const { job, clock, powerOffs } = data
  const change = useChange()
  const navigate = useNavigate()
  const wound = clock.trains.filter((t) => !powerOffs.some((p) => p.train === t.train))
  const overridden = data.gates.find((g) => g.name === 'power')?.overriddenBecause ?? null
  const refused = (error: Error) =>
    notifications.show({ color: 'red', title: 'Not done', message: sentenceOf(error), autoClose: 10_000 })
  const part = () => change.mutate({ method: 'POST', path: `/jobs/${job.id}/part`, body: {} }, { onError: refused })
  const parted = job.partedAt !== null
  usePedalAction(
    parted
      ? { label: 'Press to go on to the holes', press: () => void navigate(`/jobs/${job.id}/holes`) }
      : wound.length === 0
        ? { label: 'Press to part the plates', hint: 'every train is confirmed off', press: part }
        : {
            label: `Press when the ${wound[0]?.train} train is off, tried by hand`,
            hint: wound[0] && POWER_METHOD_TITLES[CARE[wound[0].power].method],
            press: () => {
              const first = wound[0]
              if (!first) return
              const id = uuid()
              const body = { id, train: first.train, method: CARE[first.power].method, proved: true }
              change.mutate({ method: 'POST', path: `/jobs/${job.id}/power`, body }, { onError: refused })
              return () =>
                change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/power/${id}` }, { onError: refused })
            },
          },
  )
  return (
    <div className={styles.columns}>
      <section>
        <h2>Make safe: let down the power</h2>
        <p className={styles.caution} role="note">
          <Mark state="danger" label="danger" />
          <span>
            A mainspring holds enough to break fingers and to blind. Treat every train as wound until it is proved
            otherwise: try each square, then the great wheel, by hand. Keep to your local rules, and leave to trained
            people what the law or your experience asks for.
          </span>
        </p>
        {clock.trains.map((train) => (
          <TrainPower key={train.train} train={train} />
        ))}
      </section>
      <section>
        <h2>Part the plates</h2>
        {parted ? (
          <p className={styles.state}>
            <Mark state="sound" label="done" /> Parted {whenShort(job.partedAt ?? '')}.
          </p>
        ) : (
          <>
            <p className={styles.state}>
              <Mark
                state={wound.length === 0 ? 'sound' : 'must'}
                label={wound.length === 0 ? 'may be done' : 'must not be done'}
              />
              <span>
                {wound.length === 0
                  ? 'Every train is confirmed off.'
                  : `Not before ${wound.map((t) => t.train).join(' and ')} ${wound.length === 1 ? 'is' : 'are'} confirmed off.`}
                {overridden !== null && ` Overridden: ${overridden}`}
              </span>
            </p>
            <Button size="lg" disabled={wound.length > 0 && overridden === null} onClick={part}>
              Part the plates
            </Button>
            {wound.length > 0 && overridden === null && <Override jobId={job.id} onRefused={refused} />}
          </>
        )}
      </section>
    </div>
  )
}

function TrainPower({ train }: { train: Train }) {
  const { job, powerOffs } = useJobData()
  const change = useChange()
  const care = CARE[train.power]
  const [method, setMethod] = useState<Method>(care.method)
  const [proved, setProved] = useState(false)
  const done = powerOffs.find((p) => p.train === train.train)
  const refused = (error: Error) => notifications.show({ color: 'red', title: 'Not kept', message: sentenceOf(error) })
  const confirm = () =>
    change.mutate(
      { method: 'POST', path: `/jobs/${job.id}/power`, body: { id: uuid(), train: train.train, method, proved } },
      { onError: refused },
    )
  return (
    <article className={styles.train}>
      <h3>
        <Mark state={done ? 'sound' : 'must'} label={done ? 'off' : 'wound'} /> {train.train[0]?.toUpperCase()}
        {train.train.slice(1)} train, {POWER_TITLES[train.power]}
      </h3>
      {done ? (
        <p>
          Off: {POWER_METHOD_TITLES[done.method as Method]}. Confirmed by {done.who}, {whenShort(done.at)}.{' '}
          {job.partedAt === null && (
            <Button
              variant="subtle"
              size="compact-md"
              onClick={() =>
                change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/power/${done.id}` }, { onError: refused })
              }
            >
              Take that back
            </Button>
          )}
        </p>
      ) : (
        <>
          <p className={styles.steps}>{care.steps}</p>
          <NativeSelect
            label="How it was taken off"
            value={method}
            onChange={(e) => setMethod(e.currentTarget.value as Method)}
            data={POWER_METHODS.map((m) => ({ value: m, label: POWER_METHOD_TITLES[m] }))}
          />
          {method === 'run-down' && (
            <p className={styles.steps}>
              Only where the click can’t be reached: it races. Fingers out; never bend or cut a part worth keeping.
            </p>
          )}
          <Checkbox
            my="sm"
            label="I tried the square both ways and the great wheel by hand: there is nothing left in it"
            checked={proved}
            onChange={(e) => setProved(e.currentTarget.checked)}
          />
          <Button disabled={!proved} onClick={confirm} loading={change.isPending}>
            The {train.train} train is off, says {benchName() || 'whoever is at the bench'}
          </Button>
        </>
      )}
    </article>
  )
}

function Override({ jobId, onRefused }: { jobId: string; onRefused: (error: Error) => void }) {
  const [reason, setReason] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const change = useChange()
  const override = () => {
    const body = { id: uuid(), gate: 'power' as const, reason }
    GateOverride.validate(body).then(
      () => change.mutate({ method: 'POST', path: `/jobs/${jobId}/overrides`, body }, { onError: onRefused }),
      (error: Error) => setWrong(error.message),
    )
  }
  return (
    <details className={styles.override}>
      <summary>It has to be parted with power on it</summary>
      <p>Rarely right. Say why in writing; it stays in the journal and on this job.</p>
      <Textarea
        label="Reason"
        value={reason}
        error={wrong}
        onChange={(e) => {
          setReason(e.currentTarget.value)
          setWrong(null)
        }}
        autosize
        minRows={2}
      />
      <Button mt="sm" variant="default" onClick={override}>
        Override the gate
      </Button>
    </details>
  )
}
