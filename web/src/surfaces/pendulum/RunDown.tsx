import { blankRunDown, RUN_DOWN_MOMENTS, RunDownChange, type RunDownRow } from '@treadle/contract'
import {
  efficiencyGained,
  FieldError,
  laboratoryOf,
  pendulumLengthMm,
  runDownMarks,
  whereItGoes,
  type Drive,
  type LaboratorySetting,
  type PowerGoes,
  type SheetPart,
} from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useState } from 'react'
import { v5 } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { Fold } from '../../parts/Fold.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { rowFigures } from '../../parts/rowFigures.tsx'
import { count } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { useLatest } from '../../parts/useLatest.ts'
import { RunDownWhen } from '../../lab/RunDownWhen.tsx'
import { DecayPicture } from './DecayPicture.tsx'
import { PowerPicture } from './PowerPicture.tsx'

const MARKS = 6
const NAMESPACE = '5b7e52fc-3a1b-4a52-8f39-0f8f6c1f2d11'

interface RunDownProps {
  sheet: readonly SheetPart[]
  setting: LaboratorySetting
  beatsPerHour: number | null
}

/**
 * What a beat costs, and gets: the pendulum is let go with its crutch off, a press notes the moment at which its swing has
 * fallen to each arc, and with what drives the clock it says how much of the drive reaches the pendulum.
 */
export function RunDown({ sheet, setting, beatsPerHour }: RunDownProps) {
  const { job, clock, runDowns } = useJobData()
  const rows = useRows<RunDownRow>('run-downs')
  const [when, setWhen] = useState<RunDownChange['when']>(runDowns.some((r) => r.when === 'after') ? 'after' : 'found')
  const stored = runDowns.findLast((r) => r.when === when)
  const going = clock.trains.find((t) => t.train === 'going')
  const blank: RunDownChange = {
    ...blankRunDown(stored?.id ?? v5(`${job.id} ${when}`, NAMESPACE), when, new Date(0).toISOString()),
    drive: going?.power === 'weight' ? 'weight' : going ? 'spring' : '',
    weightKg: going?.weightKg ?? null,
    fallMm: going?.fallMm ?? null,
    hours: clock.pendulum.windsEveryDays === null ? null : clock.pendulum.windsEveryDays * 24,
    semiArcDeg: clock.pendulum.semiArcDeg,
  }
  const run = rows.seen(blank, stored) ?? blank
  const set = (part: Partial<RunDownChange>) => rows.set(stampedAt(blank, part), stored, part)
  const latest = useLatest(run)
  const [fromDeg, setFromDeg] = useState<number | null>(null)
  const first = fromDeg ?? run.readings[0]?.semiArcDeg ?? roundUp((run.semiArcDeg ?? 2) * 1.2)
  const marks = runDownMarks(first, MARKS)
  const noted = run.readings.length
  const next = marks[noted]
  const note = (atMs: number, semiArcDeg: number) => {
    const now = latest.current
    const ranAt = now.readings.length === 0 ? new Date(atMs).toISOString() : now.ranAt
    const atS = Math.max(0, Math.round((atMs - Date.parse(ranAt)) / 100) / 10)
    const before = now.readings
    set({ ranAt, readings: [...before, { atS, semiArcDeg }] })
    return () => set({ readings: before })
  }
  usePedalAction(
    next === undefined || (noted > 0 && noted >= MARKS)
      ? null
      : {
          label: noted === 0 ? `Press as its swing falls through ${arc(next)}` : `Press at ${arc(next)}`,
          hint: `free swing, crutch off; ${ORDINALS[noted] ?? `${noted + 1}th`} of ${marks.length}`,
          press: (atMs) => note(atMs, next),
        },
  )
  const each = RUN_DOWN_MOMENTS.map((moment) => {
    const row = moment === when ? run : runDowns.findLast((r) => r.when === moment)
    return row ? goes(row, { sheet, setting, beatsPerHour }) : null
  })
  const [found, after] = each
  const told = when === 'found' ? found : after
  const gained = found?.power && after?.power ? efficiencyGained(found.power, after.power) : null
  const field = rowFigures(RunDownChange, run, `run-down ${when}`, set)
  return (
    <section aria-label="What a beat costs, and gets">
      <h2>What a beat costs, and gets</h2>
      <RunDownWhen
        when={when}
        onPick={(to) => {
          setWhen(to)
          setFromDeg(null)
        }}
      />
      {told?.power && <PowerPicture goes={told.power} />}
      {told?.power && <p>{powerWords(told.power)}</p>}
      {gained && (
        <p>
          <Mark state={gained.isTold && gained.percentPoints > 0 ? 'sound' : 'watch'} /> The repair has the train pass
          on {share(Math.abs(gained.percentPoints))} in a hundred {gained.percentPoints >= 0 ? 'more' : 'less'} than
          before, ± {surely(gained.percentPoints, gained.standardError)}
          {gained.isTold ? '.' : ': no difference that the run-downs could tell.'}
        </p>
      )}
      {told?.wrong != null && noted > 1 && (
        <p role="alert">
          <Mark state="watch" label="can’t be told" /> {told.wrong}
        </p>
      )}
      {noted > 1 && <DecayPicture readings={run.readings} goes={told?.power ?? null} />}
      {noted === 0 && (
        <>
          <Caution second>
            The weight comes off first, or the spring is let down: without its pendulum the train runs away.
          </Caution>
          <p className={parts.say}>
            Take the crutch from the rod, so that nothing drives it; swing it a little wider than {arc(first)} and let
            it go. Press each time its swing has just fallen to the arc that is asked. Without a scale a rule behind the
            rod does: the surer the arcs, the surer what it says.
          </p>
        </>
      )}
      <div className={parts.fields}>
        <Figure
          label="First arc noted"
          unit="°"
          min={0.2}
          max={40}
          value={first}
          disabled={noted > 0}
          onKeep={setFromDeg}
        />
        {field('semiArcDeg', 'Semi-arc as it goes', '°')}
        {sheet.length === 0 && field('massG', 'Pendulum weighs', 'g')}
      </div>
      {noted > 0 && (
        <Fold title={`${count(noted, 'arc')} noted`}>
          <ol className={parts.list} aria-label="Arcs noted">
            {run.readings.map((r, i) => (
              <li key={r.atS}>
                <span className={parts.grow}>
                  after {clockTime(r.atS)} <b>{arc(r.semiArcDeg)}</b>
                </span>
                <Button
                  variant="subtle"
                  size="compact-sm"
                  aria-label={`Take away the arc of ${arc(r.semiArcDeg)}`}
                  onClick={() => set({ readings: run.readings.filter((_, n) => n !== i) })}
                >
                  take away
                </Button>
              </li>
            ))}
          </ol>
          <Button variant="default" onClick={() => stored && rows.remove(stored.id)} disabled={!stored}>
            Take back this run-down
          </Button>
        </Fold>
      )}
      <h3 className={parts.next}>What drives it</h3>
      <Group>
        <Pick
          label="Driven by"
          value={run.drive === '' ? 'weight' : run.drive}
          of={['weight', 'spring'] as const}
          onPick={(drive) => set({ drive })}
        />
      </Group>
      <div className={parts.fields}>
        {run.drive === 'spring' ? (
          <>
            {field('torqueNmm', 'Torque at the great wheel', 'N·mm')}
            {field('turns', 'Its turns', '')}
          </>
        ) : (
          <>
            {field('weightKg', 'Weight', 'kg')}
            {field('fallMm', 'Falls by')}
          </>
        )}
        {field('hours', 'In', 'hours')}
      </div>
      <p className="quiet">
        {run.drive === 'spring'
          ? 'The torque in the middle of the run, from Springs; rubbing coils take some of it from the train.'
          : 'How far the weight itself sinks, not its line; a pulley halves it.'}{' '}
        What is said holds at that arc and for this drive; the error is that of the arcs alone.
      </p>
    </section>
  )
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth']

/** A run-down begun by a figure of its drive has no moment yet: that of now. */
function stampedAt(blank: RunDownChange, part: Partial<RunDownChange>): RunDownChange {
  return { ...blank, ranAt: part.ranAt ?? new Date().toISOString() }
}

/** What a run-down tells; or what is missing, in words. */
function goes(
  run: RunDownChange,
  { sheet, setting, beatsPerHour }: RunDownProps,
): { power: PowerGoes | null; wrong: string | null } {
  if (run.readings.length < 2) return { power: null, wrong: null }
  if (run.semiArcDeg === null) return { power: null, wrong: 'Give the semi-arc at which the clock goes.' }
  try {
    const body = bodyFor(run, sheet, setting, beatsPerHour)
    if (body === null)
      return { power: null, wrong: 'Lay the pendulum out, or say what it weighs: the energy of its swing is needed.' }
    const beats = beatsPerHour ?? body.beatsPerHour
    return { power: whereItGoes(run.readings, body, run.semiArcDeg, beats, driveOf(run)), wrong: null }
  } catch (error) {
    if (error instanceof FieldError) return { power: null, wrong: `Arcs: ${error.allowed}.` }
    throw error
  }
}

function bodyFor(run: RunDownChange, sheet: readonly SheetPart[], setting: LaboratorySetting, beats: number | null) {
  if (sheet.length > 0) return laboratoryOf(sheet, setting)
  if (run.massG === null || beats === null) return null
  const lengthMm = pendulumLengthMm(beats, setting.gravity)
  return { lengthMm, cgMm: lengthMm, massG: run.massG, beatsPerHour: beats }
}

function driveOf({ drive, weightKg, fallMm, torqueNmm, turns, hours }: RunDownChange): Drive | null {
  if (hours === null) return null
  if (drive === 'spring') return torqueNmm === null || turns === null ? null : { by: 'spring', torqueNmm, turns, hours }
  return weightKg === null || fallMm === null ? null : { by: 'weight', weightKg, fallMm, hours }
}

/** A train that passes on less than this is looked at, one that passes on more than that is mismeasured, in a hundred. */
const POOR = 15

function powerWords({ decay, efficiencyPercent, efficiencyStandardError }: PowerGoes): string {
  const quality = `Q ${Math.round(decay.quality)} ± ${Math.max(1, Math.round(decay.qualityStandardError))}: a beat costs the pendulum ${decay.lossPerBeatMicroJ.toFixed(decay.lossPerBeatMicroJ < 10 ? 1 : 0)} µJ in its suspension and the air.`
  const air =
    decay.squareShare > 0.05
      ? ` About ${Math.round(100 * decay.squareShare)} in a hundred of that grows with the square of its speed: air whirled up.`
      : ''
  if (efficiencyPercent === null || efficiencyStandardError === null)
    return `${quality}${air} Say what drives the clock, and it tells how much of the drive reaches the pendulum.`
  const reaches = `${share(efficiencyPercent)} ± ${surely(efficiencyPercent, efficiencyStandardError)} in a hundred of what drives it reaches the pendulum`
  const judged =
    efficiencyPercent > 100
      ? 'more than it is given, so a figure is wrong: weight, fall, hours, or the mass'
      : efficiencyPercent < POOR
        ? 'the rest stays in train and pallets: that is where to look'
        : 'the rest stays in train and pallets'
  return `${quality}${air} ${reaches}; ${judged}.`
}

/** So few of a hundred are told with a tenth. */
const FEW = 3

const places = (percent: number) => (Math.abs(percent) < FEW ? 1 : 0)

function share(percent: number): string {
  return percent.toFixed(places(percent))
}

/** The error of a share, never finer than the share is told. */
function surely(percent: number, standardError: number): string {
  const finest = 10 ** -places(percent)
  return Math.max(finest, standardError).toFixed(places(percent))
}

function roundUp(deg: number): number {
  return Math.ceil(deg * 10) / 10
}

function arc(deg: number): string {
  return `${Number(deg.toFixed(2))}°`
}

function clockTime(s: number): string {
  const whole = Math.floor(s)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
