import type { ConfirmedCauseRow } from '@treadle/contract'
import { likelihoodWord, observedElsewhere, reasonTrouble, type Answer, type RankedCause } from '@treadle/core'
import { Button, SegmentedControl } from '@mantine/core'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { useCauseCounts, useClock, useSettings, useTable } from '../../data/queries.ts'
import { useMovement } from '../../job/useMovement.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { useObservations } from '../../job/useObservations.ts'
import { useRows } from '../../job/useRows.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { foundElsewhere } from '@treadle/core'
import styles from './Trouble.module.css'
import { workOn } from './workOn.ts'

const SHOWN = 6
/** As the word for it begins. */
const VERY_LIKELY = 0.85

/** What is wrong with it: likely causes, and the check that tells most for the least time. */
export function TroubleSurface() {
  const data = useJobData()
  const seen = useObservations()
  const causesRows = useRows<ConfirmedCauseRow>('causes', 'causes')
  const { data: settings } = useSettings()
  const movement = useMovement()
  const { data: table } = useTable('trouble')
  const { data: counts } = useCauseCounts()
  const { data: clock } = useClock(data.clock.id)
  const [now] = useState(() => new Date())
  const [all, setAll] = useState(false)
  const [opened, setOpened] = useState<string | null>(null)
  const flowed =
    settings && movement && clock
      ? observedElsewhere(
          foundElsewhere(
            data,
            settings.beat,
            movement.judged,
            clock.visits.find((v) => v.id !== data.job.id && v.closedAt)?.closedAt ?? null,
            now,
            settings.timeZone,
          ),
        )
      : []
  const answers: Record<string, Answer> = Object.fromEntries(flowed.map((f) => [f.check, f.answer]))
  for (const o of data.observations)
    if (o.key.startsWith('ask ')) answers[o.key.slice(4)] = o.figure ?? (o.answer as 'yes' | 'no' | 'unknown')
  const reasoned = table ? reasonTrouble(table.values, answers, counts ?? {}) : null
  const next = reasoned?.checks.find((c) => answers[c.check] !== 'unknown')
  const navigate = useNavigate()
  const top = reasoned?.causes[0]
  // Once one cause is very likely it is time to do something about it, not to ask on.
  const act = top && top.probability >= VERY_LIKELY && top.cause !== 'another' ? { top, work: workOn(top.cause) } : null
  usePedalAction(
    act?.work
      ? { label: `Press to go and do it: ${act.work.title}`, press: () => void navigate(`../${act.work?.path}`) }
      : next && !isYears(table?.values, next.check)
        ? {
            label: `Press for yes: ${next.question}`,
            hint: `${next.minutes} min`,
            press: () => {
              seen.set(`ask ${next.check}`, { answer: 'yes' })
              return () => seen.takeBack(`ask ${next.check}`)
            },
          }
        : null,
  )
  if (!reasoned || !table) return null
  const confirm = (cause: string) => causesRows.put({ id: uuid(), version: 0, cause, note: '' })
  return (
    <div className={parts.columns}>
      <section>
        <h2>Most likely</h2>
        <ol className={styles.causes}>
          {reasoned.causes.slice(0, SHOWN).map((cause) => (
            <Cause
              key={cause.cause}
              cause={cause}
              open={opened === cause.cause}
              onOpen={() => setOpened(opened === cause.cause ? null : cause.cause)}
              confirmed={data.confirmedCauses.find((c) => c.cause === cause.cause)}
              onConfirm={() => confirm(cause.cause)}
              onTakeBack={causesRows.remove}
            />
          ))}
        </ol>
        <p className="quiet">
          {reasoned.causes.length - SHOWN} more are less likely. The figures rank: they come from rules of thumb of the
          craft{Object.keys(counts ?? {}).length > 0 ? ' and what this workshop found before' : ''}, one cause at a
          time. <Link to="/tables/trouble">Change the table</Link>
        </p>
      </section>
      <section>
        {act && (
          <div className={styles.act}>
            <h2>Do this</h2>
            <p className={styles.next}>{act.work?.say ?? act.top.title}</p>
            <p className={parts.say}>{act.top.remark}</p>
            {act.work && (
              <Button component={Link} to={`../${act.work.path}`}>
                {act.work.title}
              </Button>
            )}
          </div>
        )}
        <h2>{act ? 'Or ask on' : 'Look at this next'}</h2>
        {next ? <p className={styles.next}>{next.question}</p> : <p>Everything on the list was asked.</p>}
        {next && <p className={parts.say}>{next.how}</p>}
        <ul className={parts.list}>
          {reasoned.checks.slice(0, all ? undefined : SHOWN).map((check) => (
            <li key={check.check}>
              <span className={parts.grow}>
                <strong>{check.question}</strong>
                <br />
                <span className="quiet">
                  {check.how} {check.minutes} min; {tellsWords(check.tells)}
                </span>
              </span>
              <Ask
                label={check.question}
                years={isYears(table.values, check.check)}
                answer={answers[check.check] ?? null}
                onAnswer={(answer) =>
                  typeof answer === 'number'
                    ? seen.set(`ask ${check.check}`, { answer: 'years', figure: answer })
                    : seen.set(`ask ${check.check}`, { answer: answer, figure: null })
                }
              />
            </li>
          ))}
        </ul>
        {reasoned.checks.length > SHOWN && (
          <Button variant="subtle" onClick={() => setAll(!all)}>
            {all ? 'Only what tells most' : `All ${reasoned.checks.length} checks`}
          </Button>
        )}
        <h2 className={parts.next}>What is known</h2>
        <ul className={parts.list}>
          {table.values.checks
            .filter((c) => known(answers[c.key]))
            .map((c) => {
              const from = flowed.find((f) => f.check === c.key)?.from
              const asked = seen.of(`ask ${c.key}`)
              return (
                <li key={c.key}>
                  <span className={parts.grow}>
                    {c.question} <strong>{said(answers[c.key])}</strong>
                    <br />
                    <span className="quiet">{asked ? `asked by ${asked.who}` : `from ${from ?? ''}`}</span>
                  </span>
                  {asked && (
                    <Button variant="subtle" size="sm" onClick={() => seen.takeBack(`ask ${c.key}`)}>
                      Take back
                    </Button>
                  )}
                </li>
              )
            })}
        </ul>
      </section>
    </div>
  )
}

function Cause({
  cause,
  open,
  onOpen,
  confirmed,
  onConfirm,
  onTakeBack,
}: {
  cause: RankedCause
  open: boolean
  onOpen: () => void
  confirmed: ConfirmedCauseRow | undefined
  onConfirm: () => void
  onTakeBack: (id: string) => void
}) {
  const percent = 100 * cause.probability
  return (
    <li>
      <button type="button" className={styles.cause} aria-expanded={open} onClick={onOpen}>
        <span className={styles.percent}>{percent < 1 ? '<1' : percent.toFixed(0)} %</span>
        <span className={parts.grow}>
          <span className={styles.causeTitle}>{cause.title}</span>
          <span className={styles.bar} aria-hidden="true">
            <span style={{ width: `${percent}%` }} />
          </span>
        </span>
        <span className="quiet">{confirmed ? 'it was this' : likelihoodWord(cause.probability)}</span>
      </button>
      {open && (
        <div className={styles.why}>
          <p className={parts.say}>{cause.remark}</p>
          {cause.because.length === 0 && <p className="quiet">Nothing is known yet: this is how often it is met.</p>}
          <ul>
            {cause.because.slice(0, 6).map((b) => (
              <li key={b.check}>
                {b.question} {said(b.answer)}: {factorWords(b.factor)}
              </li>
            ))}
          </ul>
          {confirmed ? (
            <Button variant="subtle" onClick={() => onTakeBack(confirmed.id)}>
              <Mark state="sound" /> &nbsp;Take back: it was not this
            </Button>
          ) : (
            <Button variant="default" onClick={onConfirm}>
              It was this
            </Button>
          )}
        </div>
      )}
    </li>
  )
}

function Ask({
  label,
  years,
  answer,
  onAnswer,
}: {
  label: string
  years: boolean
  answer: Answer
  onAnswer: (answer: 'yes' | 'no' | 'unknown' | number) => void
}) {
  if (years)
    return (
      <div style={{ width: '7rem' }}>
        <Figure
          label="Years"
          value={typeof answer === 'number' ? answer : null}
          min={0}
          max={500}
          onKeep={(v) => onAnswer(v ?? 'unknown')}
        />
      </div>
    )
  return (
    <SegmentedControl
      aria-label={label}
      value={typeof answer === 'string' ? answer : ''}
      onChange={(v) => onAnswer(v as 'yes')}
      data={[
        { value: 'yes', label: 'Yes' },
        { value: 'no', label: 'No' },
        { value: 'unknown', label: 'Don’t know' },
      ]}
    />
  )
}

function isYears(table: { checks: { key: string; yearsUpTo: number[] | null }[] } | undefined, key: string): boolean {
  return table?.checks.find((c) => c.key === key)?.yearsUpTo != null
}

function known(answer: Answer | undefined): boolean {
  return answer !== undefined && answer !== null && answer !== 'unknown'
}

function said(answer: Answer | undefined): string {
  return typeof answer === 'number' ? `${answer.toFixed(answer < 10 ? 1 : 0)} years` : (answer ?? '')
}

/** What a check is worth, as one would say it. */
function tellsWords(bits: number): string {
  return bits >= 0.3 ? 'tells much' : bits >= 0.1 ? 'tells something' : 'tells little'
}

function factorWords(factor: number): string {
  return factor >= 1 ? `${factor.toFixed(1)} times as likely` : `${(1 / factor).toFixed(1)} times less likely`
}
