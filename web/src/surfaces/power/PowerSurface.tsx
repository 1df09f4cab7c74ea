import { POWER_METHOD_TITLES, POWER_TITLES, type Train } from '@treadle/contract'
import {
  clockProofs,
  METHOD_CAUTIONS,
  POWER_CARE,
  proofsFor,
  type PowerMethod,
  type Proof,
  isOurs,
} from '@treadle/core'
import { Button, Checkbox, NativeSelect } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { benchName } from '../../data/atTheBench.ts'
import { sentenceOf, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { OverrideForm } from '../../job/OverrideForm.tsx'
import { whenShort } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { useWorkHeld } from '../../job/useWorkHeld.ts'
import { useOpenMarks } from '../../job/useOpenMarks.ts'
import { HowMuch, NewSpring } from './HowMuch.tsx'
import { nextOf } from './next.ts'
import styles from './Power.module.css'

const refused = (error: Error) =>
  notifications.show({ color: 'red', title: 'Not done', message: sentenceOf(error), autoClose: 10_000 })

/** The power gate: no plate is parted before every train is confirmed off by somebody who tried it by hand. */
export function PowerSurface() {
  const { job, clock, powerOffs, overrides } = useJobData()
  const change = useChange()
  const navigate = useNavigate()
  const unmarked = useOpenMarks()
  const [tried, setTried] = useState<Record<string, string[]>>({})
  const [methods, setMethods] = useState<Record<string, PowerMethod>>({})
  const wound = clock.trains.filter((t) => !powerOffs.some((p) => p.train === t.train))
  const overridden = overrides.find((o) => o.gate === 'power' && isOurs(o))?.reason ?? null
  const parted = job.partedAt !== null
  const mayPart = useWorkHeld()({ work: 'part' }) === null

  const proofsOf = (train: Train) => proofsFor(train.power, clock.kind, clock.work.mercury)
  const triedOf = (train: Train) => tried[train.train] ?? []
  const methodOf = (train: Train) => methods[train.train] ?? POWER_CARE[train.power].methods[0] ?? 'let-down'
  const tick = (train: Train, key: string, on: boolean) =>
    setTried((all) => {
      const before = all[train.train] ?? []
      return { ...all, [train.train]: on ? [...new Set([...before, key])] : before.filter((k) => k !== key) }
    })
  const takeBack = (id: string) =>
    change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/power/${id}` }, { onError: refused })
  const confirm = (train: Train) => {
    const id = uuid()
    const body = { id, train: train.train, method: methodOf(train), proofs: proofsOf(train).map((p) => p.key) }
    change.mutate({ method: 'POST', path: `/jobs/${job.id}/power`, body }, { onError: refused })
    return () => takeBack(id)
  }
  const part = () => change.mutate({ method: 'POST', path: `/jobs/${job.id}/part`, body: {} }, { onError: refused })

  const train = wound[0]
  const proof = train && proofsOf(train).find((p) => !triedOf(train).includes(p.key))
  const next = nextOf({
    parted,
    train,
    proof,
    method: train ? POWER_METHOD_TITLES[methodOf(train)] : '',
    unmarked: unmarked.length,
  })
  const press = (): (() => void) | void => {
    switch (next.what) {
      case 'take-apart':
      case 'mark':
        return void navigate(`/jobs/${job.id}/strip`)
      case 'part':
        return part()
      case 'proof':
        if (!train) return
        tick(train, next.key, true)
        return () => tick(train, next.key, false)
      case 'off':
        return train && confirm(train)
    }
  }
  usePedalAction({ label: next.label, hint: next.hint, press })
  return (
    <div className={styles.columns}>
      <section>
        <h2>Make safe: let down the power</h2>
        <Caution second={clock.work.mercury}>
          A mainspring holds enough to break fingers and to blind. Treat every train as wound until it is proved
          otherwise: try each square, then the great wheel, by hand. Keep to your local rules, and leave to trained
          people what the law or your experience asks for.
        </Caution>
        {clock.work.mercury && <MercuryFirst />}
        {clockProofs(clock.kind, false).length > 0 && (
          <p className={styles.state}>
            <Mark state="watch" label="take care" />
            <span>A second person holds a tall case: without its movement it is top-heavy.</span>
          </p>
        )}
        {clock.trains.map((t) => (
          <TrainPower
            key={t.train}
            train={t}
            proofs={proofsOf(t)}
            tried={triedOf(t)}
            method={methodOf(t)}
            onMethod={(m) => setMethods({ ...methods, [t.train]: m })}
            onTick={(key, on) => tick(t, key, on)}
            onConfirm={() => void confirm(t)}
            onTakeBack={takeBack}
          />
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
              <Mark state={mayPart ? 'sound' : 'must'} label={mayPart ? 'may be done' : 'must not be done'} />
              <span>
                {wound.length === 0
                  ? 'Every train is confirmed off.'
                  : `Not before ${wound.map((t) => t.train).join(' and ')} ${wound.length === 1 ? 'is' : 'are'} confirmed off.`}
                {overridden !== null && ` Overridden: ${overridden}`}
                {unmarked.length > 0 &&
                  ` ${unmarked.length} ${unmarked.length === 1 ? 'mesh is' : 'meshes are'} still to be marked, under Take apart.`}
              </span>
            </p>
            <Button size="lg" disabled={!mayPart} onClick={part}>
              Part the plates
            </Button>
            {wound.length > 0 && overridden === null && (
              <details className={styles.override}>
                <summary>It has to be parted with power on it</summary>
                <p>Rarely right. Say why in writing; it stays in the journal and on this job.</p>
                <OverrideForm jobId={job.id} gate="power" />
              </details>
            )}
          </>
        )}
        <NewSpring trains={clock.trains} />
      </section>
    </div>
  )
}

function MercuryFirst() {
  return (
    <Caution>
      <strong>Stop: there is mercury in its pendulum.</strong> Its own procedure first: over a sided tray, a dropper
      held upright, a glass or plastic bottle with a screw lid inside a second container; never aluminium, never a
      vacuum cleaner; ventilate. Keeping, carrying and disposal are governed by your local law: ask the authority.
    </Caution>
  )
}

function TrainPower({
  train,
  proofs,
  tried,
  method,
  onMethod,
  onTick,
  onConfirm,
  onTakeBack,
}: {
  train: Train
  proofs: Proof[]
  tried: string[]
  method: PowerMethod
  onMethod: (method: PowerMethod) => void
  onTick: (key: string, on: boolean) => void
  onConfirm: () => void
  onTakeBack: (id: string) => void
}) {
  const { job, powerOffs } = useJobData()
  const care = POWER_CARE[train.power]
  const done = powerOffs.find((p) => p.train === train.train)
  return (
    <article className={styles.train}>
      <h3>
        <Mark state={done ? 'sound' : 'must'} label={done ? 'off' : 'wound'} /> {train.train[0]?.toUpperCase()}
        {train.train.slice(1)} train, {POWER_TITLES[train.power]}
      </h3>
      {done ? (
        <p>
          Off: {POWER_METHOD_TITLES[done.method]}. Confirmed by {done.who}, {whenShort(done.at)}.{' '}
          {job.partedAt === null && (
            <Button variant="subtle" size="compact-md" onClick={() => onTakeBack(done.id)}>
              Take that back
            </Button>
          )}
        </p>
      ) : (
        <>
          <HowMuch train={train} />
          <dl className={styles.care}>
            <dt>Wear</dt>
            <dd>{care.wear}</dd>
            <dt>Hold</dt>
            <dd>{care.hold}</dd>
            <dt>Do</dt>
            <dd>
              <ol>
                {care.steps.map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </ol>
            </dd>
            <dt>May go wrong</dt>
            <dd>{care.wrong}</dd>
          </dl>
          <NativeSelect
            label={`How the ${train.train} train is taken off`}
            value={method}
            onChange={(e) => onMethod(e.currentTarget.value as PowerMethod)}
            data={care.methods.map((m) => ({ value: m, label: POWER_METHOD_TITLES[m] }))}
          />
          {METHOD_CAUTIONS[method] !== undefined && <p className={styles.steps}>{METHOD_CAUTIONS[method]}</p>}
          <fieldset className={styles.proofs}>
            <legend>Proved off, by hand</legend>
            {proofs.map((proof) => (
              <Checkbox
                key={proof.key}
                size="md"
                label={proof.says}
                checked={tried.includes(proof.key)}
                onChange={(e) => onTick(proof.key, e.currentTarget.checked)}
              />
            ))}
          </fieldset>
          <Button disabled={proofs.some((p) => !tried.includes(p.key))} onClick={onConfirm}>
            The {train.train} train is off, says {benchName() || 'whoever is at the bench'}
          </Button>
        </>
      )}
    </article>
  )
}
