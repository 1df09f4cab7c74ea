import type { Hole, HoleChange } from '@treadle/contract'
import {
  byWorkingOrder,
  formatClockDirection,
  fromMm,
  isHeld,
  type LengthUnit,
  placeOfHole,
  samePlace,
} from '@treadle/core'
import { Button, Group, SegmentedControl } from '@mantine/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { sayNotKept, useChange, useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { FoundInHole } from '../../job/FoundInHole.tsx'
import { RestLooked } from '../../job/RestLooked.tsx'
import { wordsOfRows } from '../../job/rowWords.ts'
import { Mark } from '../../parts/Mark.tsx'
import { useMoveTo } from '../../job/useMoveTo.ts'
import { useMovement } from '../../job/useMovement.ts'
import { without } from '../../parts/clash.ts'
import { keepOver, meetConflict } from '../../parts/conflict.tsx'
import { useDraft } from '../../parts/useDraft.ts'
import { useStop } from '../../parts/useStop.ts'
import { WearQuestion } from '../../job/WearQuestion.tsx'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { AddHoles } from './AddHoles.tsx'
import { Depth } from './Depth.tsx'
import { HolePicture } from './HolePicture.tsx'
import {
  draftOf,
  isWhole,
  MEASURE_TITLES,
  MEASURES,
  measuredOf,
  readDraft,
  type Draft,
  type Measure,
} from './measure.ts'
import { nextOf } from './next.ts'
import { Verdict } from './Verdict.tsx'
import styles from './Holes.module.css'

const WORDS = wordsOfRows('holes')

/** The holes of a job, great wheel up: the caliper's surface, the picture, the verdict. */
export function HolesSurface() {
  const { holes } = useJobData()
  const [shown, goTo] = useStop('hole')
  const ordered = useMemo(() => [...holes].sort(byWorkingOrder), [holes])
  const at = Math.max(
    0,
    ordered.findIndex((h) => h.id === shown),
  )
  const first = ordered.findIndex((h) => h.plateMm === null)
  const index = shown !== null ? at : Math.max(0, first)
  const hole = ordered[index]
  const go = (to: Hole) => goTo(to.id)
  if (!hole)
    return (
      <>
        <AddHoles empty />
        <RestLooked what="holes" />
      </>
    )
  return (
    <>
      <OneHole key={hole.id} hole={hole} ordered={ordered} go={go} />
      <div className={styles.strip}>
        <span className="quiet">Holes, great wheel up</span>
        {ordered.map((h, i) => (
          <button
            key={h.id}
            type="button"
            className={h.id === hole.id ? `${styles.stripHole} ${styles.chosen}` : styles.stripHole}
            aria-pressed={h.id === hole.id}
            onClick={() => go(h)}
            aria-label={`Hole ${i + 1}: ${h.train} train, ${h.arbor}, ${h.plate} plate`}
          >
            {i + 1}
            <StripMark hole={h} />
            {h.flagged && <span aria-label="flagged for later">⚑</span>}
          </button>
        ))}
        <AddHoles />
      </div>
      <RestLooked what="holes" />
    </>
  )
}

function StripMark({ hole }: { hole: Hole }) {
  const judged = useMovement()?.judged(hole)
  if (hole.bushed) return <Mark state="sound" label="bushed" />
  if (!judged || judged.verdict === null) return <Mark state="none" label="not measured" />
  return judged.verdict === 'bush' ? (
    <Mark state="must" label="to be bushed" />
  ) : judged.nearLimit ? (
    <Mark state="watch" label="near the limit" />
  ) : (
    <Mark state="sound" label="to be left" />
  )
}

function OneHole({ hole, ordered, go }: { hole: Hole; ordered: Hole[]; go: (to: Hole) => void }) {
  const { job, pivots, gates } = useJobData()
  const moveTo = useMoveTo(job)
  const { data: settings } = useSettings()
  const navigate = useNavigate()
  const change = useChange<Hole>()
  const [unit, setUnit] = useState<LengthUnit>(
    (localStorage.getItem('treadle-caliper') as LengthUnit | null) ?? settings?.lengthUnit ?? 'mm',
  )
  const kept = draftOf(hole, unit)
  const { row: draft, base, set: setDraft, dirty: changed, forget } = useDraft<Draft>(kept, `hole ${hole.id} ${unit}`)
  const fields = useRef<Partial<Record<Measure, HTMLInputElement | null>>>({})
  const read = readDraft(draft, unit)
  const whole = isWhole(read)
  const movement = useMovement()
  const now = { ...hole, ...read.figures, verdictOverride: null }
  const place = movement && placeOfHole(movement.trains, now)
  const judged = whole && movement ? movement.judged(now) : null
  const plan = judged?.plan ?? null
  const expected = movement?.expected(hole) ?? null
  const pivot = pivots.find((p) => samePlace(p, hole))
  const next = nextHole(ordered, hole)

  useEffect(() => {
    if (hole.plateMm === null && !conflictOpen()) fields.current.longAxis?.focus()
  }, [hole.plateMm])

  const { jobId: _, measuredBy: _m, whoId: _i, ...row } = hole
  const send = (body: HoleChange, from: object, after?: () => void) =>
    change.mutate(
      { method: 'PUT', path: `/jobs/${job.id}/holes/${hole.id}`, body },
      {
        onSuccess: after,
        onError: (error) => {
          const met = meetConflict(error, {
            words: WORDS,
            base: from,
            mine: body,
            send: (merged, version) => send({ ...(merged as HoleChange), version }, from, after),
            takeTheirs: forget,
          })
          if (!met) sayNotKept(error)
        },
      },
    )
  /** One thing that is said by a press; what is still being typed is not sent with it. */
  const save = (part: Partial<HoleChange>, after?: () => void, version = hole.version) =>
    send({ ...row, ...part, version }, without(row, part), after)
  /** What was typed, and with it what a press says; asked about first where somebody else measured the same meanwhile. */
  const keepTyped = (part: Partial<HoleChange> = {}, after?: () => void) => {
    // What can't be read is no figure: it stays typed, and what was kept stays kept.
    if (Object.keys(read.errors).length > 0) {
      save(part, after)
      return
    }
    const from = { ...row, ...measuredOf(base, unit) }
    const done = () => {
      forget()
      after?.()
    }
    keepOver(
      {
        words: WORDS,
        base: from,
        mine: { ...row, ...measuredOf(draft, unit), ...part },
        send: (merged, version) => send({ ...(merged as HoleChange), version }, from, done),
        takeTheirs: forget,
      },
      hole,
    )
  }
  const onEnter = (measure: Measure) => {
    if (read.errors[measure] !== undefined) return
    const following = MEASURES[MEASURES.indexOf(measure) + 1]
    if (following) fields.current[following]?.focus()
    else {
      const wrong = MEASURES.find((m) => read.errors[m] !== undefined || draft[m].trim() === '')
      if (wrong) fields.current[wrong]?.focus()
      else document.getElementById('main')?.focus({ preventScroll: true })
    }
  }
  const verdict = hole.verdictOverride ?? plan?.verdict
  const flag = () => save({ flagged: !hole.flagged })
  const before = { version: hole.version, measured: { ...pick(hole) } }
  const keepAndGo = () => {
    keepTyped({}, () => next && go(next))
    return () => {
      save(before.measured, undefined, before.version + 1)
      go(hole)
    }
  }
  const foot = nextOf({
    hole,
    verdict: verdict ?? null,
    changed,
    whole,
    pivotUnfinished: pivot?.finishedMm === null,
    next,
    pivotsWait: gates.some((g) => g.name === 'pivots' && isHeld(g)),
    bushesWait: ordered.some((h) => !h.bushed && movement?.judged(h).verdict === 'bush'),
  })
  const press = (): (() => void) | void => {
    switch (foot.what) {
      case 'keep':
        return keepAndGo()
      case 'pivot-first':
        return void navigate(
          `/jobs/${job.id}/pivots?at=${encodeURIComponent(`${hole.train} ${hole.arbor} ${hole.plate}`)}`,
        )
      case 'type':
        return
      case 'plan':
        return void navigate(`/jobs/${job.id}/bushings?hole=${hole.id}`)
      case 'pivots':
        return void navigate(`/jobs/${job.id}/pivots`)
      case 'next-hole':
        if (next) go(next)
        return () => go(hole)
      case 'assemble': {
        const back = job.bay === 'mend' ? moveTo('set') : undefined
        void navigate(`/jobs/${job.id}/assemble`)
        return back
      }
    }
  }
  usePedalAction({ label: foot.label, hint: foot.hint, press, flag })
  return (
    <div className={styles.columns}>
      <HolePicture figures={read.figures} plan={plan} plate={hole.plate} onWear={(wear) => setDraft({ wear })} />
      <section className={styles.measuring}>
        <h2>
          {hole.arbor}, {hole.plate} plate
        </h2>
        <p className="quiet">
          {hole.train} train{hole.role !== 'other' && `, ${hole.role} arbor`}
          {hole.flagged && ', flagged for later'}
        </p>
        {MEASURES.map((measure) => (
          <label
            key={measure}
            className={read.errors[measure] === undefined ? styles.field : `${styles.field} ${styles.wrong}`}
          >
            <span>{MEASURE_TITLES[measure]}</span>
            <input
              ref={(element) => {
                fields.current[measure] = element
              }}
              value={draft[measure]}
              inputMode={measure === 'wear' ? 'text' : 'decimal'}
              aria-invalid={read.errors[measure] !== undefined}
              aria-describedby={read.errors[measure] === undefined ? undefined : `${measure}-wrong`}
              onChange={(e) => setDraft({ [measure]: e.currentTarget.value })}
              onFocus={(e) => e.currentTarget.select()}
              onKeyDown={(e) => {
                if (e.key !== 'Enter') return
                e.preventDefault()
                onEnter(measure)
              }}
              autoComplete="off"
            />
            <span className="quiet">{measure === 'wear' ? 'dial' : unit}</span>
            {read.errors[measure] !== undefined && (
              <span id={`${measure}-wrong`} role="alert" className={styles.sentence}>
                {read.errors[measure]}
              </span>
            )}
          </label>
        ))}
        {pivot?.finishedMm != null && read.figures.pivotMm !== pivot.finishedMm && (
          <p>
            <Mark state="watch" label="mind" /> Its finished pivot is {pivot.finishedMm.toFixed(2)} mm.{' '}
            <Button
              variant="default"
              size="compact-md"
              onClick={() => setDraft({ pivot: fromMm(pivot.finishedMm ?? 0, unit).toFixed(unit === 'mm' ? 2 : 1) })}
            >
              Take that
            </Button>
          </p>
        )}
        {pivot && pivot.finishedMm === null && (
          <p>
            <Mark state="watch" label="mind" /> Its pivot is not finished; the bush follows the finished pivot.
          </p>
        )}
        {judged?.sure != null && (
          <p className="quiet">
            {howSure(judged.sure, judged.verdict)}, measured to ± {judged.play?.sigmaMm.toFixed(3)} mm.
          </p>
        )}
        {expected !== null && read.figures.wearDeg !== null && (
          <p className="quiet">The train should wear it toward {formatClockDirection(expected)}.</p>
        )}
        <WearQuestion hole={now} />
        <Group justify="space-between" mt="sm">
          <span className="quiet">Type, then Enter; a caliper’s own key does the same.</span>
          <SegmentedControl
            aria-label="Caliper unit"
            value={unit}
            data={['mm', 'thou']}
            onChange={(value) => {
              localStorage.setItem('treadle-caliper', value)
              setUnit(value)
            }}
          />
        </Group>
        <details className={styles.depth}>
          <summary>{foundWords(hole)}</summary>
          <Group align="end">
            <FoundInHole hole={hole} onKeep={(part) => keepTyped(part)} />
          </Group>
        </details>
        <Depth hole={hole} fromPlates={place?.depth != null} onKeep={(part) => save(part)} />
        <Group mt="sm">
          <Button variant="default" disabled={!whole || !changed} onClick={keepAndGo}>
            Keep this
          </Button>
          <Button
            variant="subtle"
            onClick={() => change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/holes/${hole.id}` })}
          >
            Take it off the list
          </Button>
        </Group>
      </section>
      <section aria-live="polite">
        <h2>What to do</h2>
        {plan && settings ? (
          <Verdict hole={hole} plan={plan} rules={settings.bushing} unit={unit} onChange={(part) => keepTyped(part)} />
        ) : (
          <p className={styles.wait}>
            Measure the hole the long way and the short, say which way it is worn, then the finished pivot and the
            plate. The verdict comes as you type.
          </p>
        )}
      </section>
    </div>
  )
}

/** How sure a verdict is that goes by the play, as one would say it across the bench. */
function howSure(sure: number, verdict: 'bush' | 'leave' | null): string {
  const what = verdict === 'bush' ? 'too much' : 'within the limit'
  return sure >= 0.99
    ? `Its play is surely ${what}`
    : sure >= 0.9
      ? `Its play is very likely ${what}`
      : `Its play is so near the limit that it may go either way`
}

function foundWords({ old, oldHoleMm, sinkMm }: Hole): string {
  const bush = { none: '', pressed: 'a pressed bush', screwed: 'a screwed bush', punched: 'punch marks' }[old]
  const words = [
    bush,
    oldHoleMm === null ? '' : `which leaves ${oldHoleMm.toFixed(2)} mm`,
    sinkMm === null ? '' : `an oil sink of ${sinkMm.toFixed(1)} mm`,
  ].filter((w) => w !== '')
  return `What stands in it: ${words.length > 0 ? words.join(', ') : 'nothing said'}`
}

function pick({ longAxisMm, shortAxisMm, wearDeg, pivotMm, plateMm, typed }: Hole): Partial<HoleChange> {
  return { longAxisMm, shortAxisMm, wearDeg, pivotMm, plateMm, typed }
}

/** The next hole that waits for a measurement or a bush; else the next in order. */
function nextHole(ordered: Hole[], hole: Hole): Hole | undefined {
  const at = ordered.findIndex((h) => h.id === hole.id)
  const later = [...ordered.slice(at + 1), ...ordered.slice(0, at)]
  return later.find((h) => h.plateMm === null) ?? ordered[at + 1]
}

function conflictOpen(): boolean {
  return document.querySelector('[role="dialog"]') !== null
}
