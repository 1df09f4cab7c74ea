import {
  MERCURY_BOTTLES,
  MERCURY_GATE,
  MERCURY_JAR,
  MERCURY_QUESTIONS,
  MERCURY_SPILT,
  MERCURY_WAY_TITLES,
  MERCURY_WAYS,
  mercuryGateKey,
  mercuryLoss,
  mercuryNotWeighed,
  mercurySteps,
  mercuryWalk,
  unlessRefused,
  FieldError,
  type MercuryWay,
} from '@treadle/core'
import { Checkbox, TextInput } from '@mantine/core'
import { useRef } from 'react'
import { Link, useNavigate } from 'react-router'
import { Led } from '../../job/Led.tsx'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations, type Observations } from '../../job/useObservations.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { Fold } from '../../parts/Fold.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { useDraft } from '../../parts/useDraft.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Mercury.module.css'

const WAY = 'mercury: way'

/** Mercury moved only by who may, where it may be, with all laid ready; weighed before and after; the law is asked, not guessed. */
export function MercurySurface() {
  const seen = useObservations()
  const navigate = useNavigate()
  const open = MERCURY_GATE.filter(([key]) => seen.of(mercuryGateKey(key))?.answer !== 'so')
  const scale = useRef<HTMLDivElement>(null)
  const toTheScale = () => [...(scale.current?.querySelectorAll('input') ?? [])].find((f) => f.value === '')?.focus()
  const way: MercuryWay = MERCURY_WAYS.find((w) => w === seen.of(WAY)?.answer) ?? 'keep'
  return (
    <>
      <Caution>
        Mercury poisons by its vapour, slowly and unseen. In its jar, capped, it gives off next to nothing: leave it
        there unless the clock has to be moved. Local law says who may hold, carry and hand over mercury: ask the local
        authority first. This page reckons weights and keeps the order of the work; it does not say what is allowed.
      </Caution>
      <div className={parts.columns}>
        <section>
          <Pick
            label="What becomes of it"
            value={way}
            of={MERCURY_WAYS.map((w) => [w, MERCURY_WAY_TITLES[w]])}
            onPick={(answer) => seen.set(WAY, { answer })}
          />
          {way === 'shot' && (
            <p>
              <Link to="../pendulum">What compensation is lost</Link>: lay its pendulum out, and put shot in the place
              of the mercury.
            </p>
          )}
          <h2>Before a cap is opened</h2>
          {MERCURY_GATE.map(([key, words]) => (
            <Checkbox
              key={key}
              my={10}
              size="md"
              label={words}
              checked={seen.of(mercuryGateKey(key))?.answer === 'so'}
              onChange={(e) => seen.set(mercuryGateKey(key), { answer: e.currentTarget.checked ? 'so' : '' })}
            />
          ))}
          {open.length > 0 ? (
            <StillWanted things={open.length} />
          ) : (
            <div className={styles.led}>
              <Led
                key={way}
                walk={mercuryWalk(way)}
                steps={mercurySteps(way)}
                ready={({ key }) => mercuryNotWeighed(key, weighed(seen))}
                instead={() => ({ label: 'Press to write down what it weighs', press: toTheScale })}
                onward={{ label: 'Press to go to its setting up', go: () => void navigate('../set-up') }}
              />
            </div>
          )}
        </section>
        <section>
          <h2>Weighed</h2>
          <div ref={scale}>
            <Weighed seen={seen} />
          </div>
          <Fold title={<b>It was spilt</b>}>
            <ol className={styles.spilt}>
              {MERCURY_SPILT.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ol>
          </Fold>
          <h2>Ask the local authority</h2>
          <p className="quiet">Its answers stay with this clock.</p>
          {MERCURY_QUESTIONS.map(([key, question]) => (
            <Answer key={key} of={`mercury asked: ${key}`} question={question} seen={seen} />
          ))}
        </section>
      </div>
    </>
  )
}

/** While anything is wanted nothing is opened: the foot leads away from here. */
function StillWanted({ things }: { things: number }) {
  const navigate = useNavigate()
  usePedalAction({ label: 'Press to go back to its setting up', press: () => void navigate('../set-up') })
  return (
    <p className={styles.held} role="status">
      <Mark state="must" label="not passed" /> {things === 1 ? 'One thing is' : `${things} things are`} still wanted.
      Until then nothing is opened.
    </p>
  )
}

/** What is weighed: its name, where it is kept, the least that it can be; the scale's own error can't be nought. */
const WEIGHED = [
  ['Jar before, with its cap', MERCURY_JAR, 'figure', 0],
  ['Jar after', MERCURY_JAR, 'second', 0],
  ['In the bottles, net', MERCURY_BOTTLES, 'figure', 0],
  ['The scale is good to', MERCURY_BOTTLES, 'second', 0.001],
] as const

/** What was weighed so far. */
function weighed(seen: Pick<Observations, 'of'>) {
  return [MERCURY_JAR, MERCURY_BOTTLES].flatMap((key) => seen.of(key) ?? [])
}

/** Jar before, jar after, what is in the bottles: what was lost. */
function Weighed({ seen }: { seen: Observations }) {
  const jar = seen.of(MERCURY_JAR)
  const bottles = seen.of(MERCURY_BOTTLES)
  const [before, after, bottled, scale] = [
    jar?.figure ?? null,
    jar?.second ?? null,
    bottles?.figure ?? null,
    bottles?.second ?? 0.1,
  ]
  const loss =
    before === null || after === null || bottled === null
      ? null
      : unlessRefused(() => mercuryLoss(before, after, bottled, scale))
  return (
    <>
      <div className={parts.fields}>
        {WEIGHED.map(([label, key, field, least]) => (
          <Figure
            key={label}
            label={label}
            unit="g"
            min={least}
            max={least > 0 ? 50 : 50_000}
            value={seen.of(key)?.[field] ?? (least > 0 ? scale : null)}
            onKeep={(value) => seen.set(key, { [field]: value })}
          />
        ))}
      </div>
      {loss instanceof FieldError ? (
        <p role="alert">Jar after: it must not be heavier than it was before.</p>
      ) : loss === null ? (
        <p className="quiet">With all three it says what was lost.</p>
      ) : (
        <p className={styles.loss} role="status">
          <Mark
            state={loss.missing ? 'danger' : loss.lostG < -loss.errorG ? 'watch' : 'sound'}
            label={loss.missing ? 'missing' : 'accounted for'}
          />{' '}
          {loss.missing
            ? `${loss.lostG.toFixed(1)} g, ${loss.lostMl.toFixed(2)} ml, is missing: the scale would be out by ${loss.errorG.toFixed(1)} g at most. Stop, look for drops with a light held low, and treat it as spilt.`
            : loss.lostG < -loss.errorG
              ? 'More came into the bottles than left the jar: weigh again.'
              : `All accounted for, to ±${loss.errorG.toFixed(1)} g by the scale.`}
        </p>
      )}
    </>
  )
}

function Answer({ of, question, seen }: { of: string; question: string; seen: Observations }) {
  const { job } = useJobData()
  const row = seen.of(of)
  const { row: draft, set, forget } = useDraft({ note: row?.note ?? '' }, `note ${job.id} ${of}`)
  const keep = () => {
    if (draft.note !== (row?.note ?? '')) seen.set(of, { note: draft.note })
    forget()
  }
  return (
    <TextInput
      label={question}
      mt="sm"
      value={draft.note}
      maxLength={2000}
      onChange={(e) => set({ note: e.currentTarget.value })}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  )
}
