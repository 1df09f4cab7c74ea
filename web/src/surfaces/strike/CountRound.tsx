import type { StrikeCountChange, StrikeCountRow } from '@treadle/contract'
import { StrikeCountChange as CountSchema } from '@treadle/contract'
import {
  faultsOfPattern,
  patternInWords,
  strikesRight,
  timeInWords,
  timeKey,
  type StrikeSetUp,
  type Struck,
} from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useEffect, useState } from 'react'
import { v5 } from 'uuid'
import { useStrikeEar, type StrikeHeardLive } from '../../hear/useStrikeEar.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { useLatest } from '../../parts/useLatest.ts'
import { useStop } from '../../parts/useStop.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Strike.module.css'

const NAMESPACE = '2f0c8a6e-55c7-4e57-9e8a-6a3d2f3d8c14'
/** So long after a blow nothing more is struck: the count is kept. */
const QUIET_MS = 5000

/** Twelve hours round, by the foot or by hand: each time against what it should be, and what the pattern tells. */
export function CountRound({
  setUp,
  pedal,
  onShowFault,
}: {
  setUp: Pick<StrikeSetUp, 'kind' | 'halves'>
  pedal: boolean
  onShowFault: (key: string) => void
}) {
  const { job, strikeCounts } = useJobData()
  const rows = useRows<StrikeCountRow>('strike-counts')
  const [stop, goTo] = useStop('at')
  const times = strikesRight(setUp.kind, setUp.halves)
  const [way, setWay] = useState<StrikeCountChange['way']>('pedal')
  const ear = useStrikeEar()
  const blank = (t: Struck) => ({
    id: v5(`${job.id} ${timeKey(t)}`, NAMESPACE),
    version: 0,
    hour: t.hour,
    quarter: t.quarter,
    quarters: null,
    blows: null,
    way,
    heardAt: new Date().toISOString(),
    ...{ jobId: job.id, who: '', at: '' },
  })
  const rowOf = (t: Struck): StrikeCountRow | undefined =>
    rows.seen(
      blank(t),
      strikeCounts.find((c) => c.hour === t.hour && c.quarter === t.quarter),
    )
  const heard = times.flatMap((t) => {
    const row = rowOf(t)
    return row && (row.blows !== null || row.quarters !== null) ? [row] : []
  })
  const [opensAt] = useState(() => times.find((t) => !strikeCounts.some((c) => timeKey(c) === timeKey(t))) ?? times[0])
  const time = times.find((t) => timeKey(t) === stop) ?? opensAt
  return (
    <>
      <Pick
        label="Counted"
        value={way}
        of={[
          ['pedal', 'blow by blow, by the foot'],
          ['hand', 'by hand, moved on quickly'],
          ['microphone', 'by the microphone'],
        ]}
        onPick={(picked) => {
          if (picked !== 'microphone') ear.stop()
          setWay(picked)
        }}
      />
      {time && (
        <Counting
          key={`${timeKey(time)} ${way}`}
          time={time}
          row={rowOf(time)}
          way={way}
          pedal={pedal}
          ear={ear}
          onKeep={(part) => {
            const was = strikeCounts.find((c) => timeKey(c) === timeKey(time))
            rows.set(blank(time), was, { ...part, way, heardAt: new Date().toISOString() })
            const next = times[(times.findIndex((t) => timeKey(t) === timeKey(time)) + 1) % times.length]
            if (next) goTo(timeKey(next))
            return () => {
              if (was) rows.set(blank(time), was, { blows: was.blows, quarters: was.quarters, heardAt: was.heardAt })
              else rows.remove(blank(time).id)
              goTo(timeKey(time))
            }
          }}
        />
      )}
      <ol className={styles.round} aria-label="Twelve hours round">
        {times.map((t) => {
          const row = rowOf(t)
          const counted = row && (row.blows !== null || row.quarters !== null)
          const right = row && (row.blows ?? t.blows) === t.blows && (row.quarters ?? t.quarters) === t.quarters
          return (
            <li key={timeKey(t)}>
              <button
                type="button"
                aria-current={time && timeKey(t) === timeKey(time)}
                onClick={() => goTo(timeKey(t))}
              >
                <span>{shortTime(t)}</span>
                <span className="quiet">{shouldBe(t)}</span>
                {counted ? (
                  <>
                    <Mark state={right ? 'sound' : 'must'} label={right ? 'right' : 'wrong'} />
                    <b>{[row.quarters ?? '', row.blows ?? ''].filter((n) => n !== '').join(' + ')}</b>
                  </>
                ) : (
                  <Mark state="none" label="not counted" />
                )}
              </button>
            </li>
          )
        })}
      </ol>
      <Pattern setUp={setUp} heard={heard} onShowFault={onShowFault} />
    </>
  )
}

function shortTime({ hour, quarter }: { hour: number; quarter: number }): string {
  return quarter === 0 ? `${hour}` : `${hour}:${String(quarter * 15)}`
}

function shouldBe({ quarters, blows }: Struck): string {
  return [quarters > 0 ? quarters : '', blows > 0 ? blows : ''].filter((n) => n !== '').join(' + ')
}

/** One time: first its quarters, then its blows, each pressed as it is heard, or said in one press where it is right. */
function Counting({
  time,
  row,
  way,
  pedal,
  ear,
  onKeep,
}: {
  time: Struck
  row: StrikeCountRow | undefined
  way: StrikeCountChange['way']
  pedal: boolean
  ear: StrikeHeardLive
  onKeep: (part: { quarters: number | null; blows: number | null }) => () => void
}) {
  // The phrases of a quarter are the foot's to count; the microphone counts blows.
  const how = way === 'microphone' && time.blows === 0 ? 'pedal' : way
  const asks = [
    ...(time.quarters > 0 && how !== 'microphone' ? (['quarters'] as const) : []),
    ...(time.blows > 0 ? (['blows'] as const) : []),
  ]
  const [counts, setCounts] = useState<{ quarters: number | null; blows: number | null }>({
    quarters: null,
    blows: null,
  })
  const [part, setPart] = useState(0)
  const asked = asks[part] ?? 'blows'
  const n = counts[asked]
  const count = (by: 1 | -1) => setCounts((now) => ({ ...now, [asked]: Math.max(0, (now[asked] ?? 0) + by) }))
  const finish = (value: number) => {
    const all = { ...counts, [asked]: value }
    if (part + 1 < asks.length) {
      setCounts(all)
      setPart(part + 1)
      return () => setPart(part)
    }
    return onKeep(all)
  }
  const latest = useLatest(finish)
  // Once it has been quiet for long enough it has finished, so that the foot alone counts the round.
  useEffect(() => {
    if (how !== 'pedal' || n === null || n === 0) return
    const timer = window.setTimeout(() => latest.current(n), QUIET_MS)
    return () => window.clearTimeout(timer)
  }, [n, how, part, latest])
  // By the microphone a strike has finished when it has been quiet; what it heard is shown, and kept by itself.
  const struckNow = ear.heard.groups.at(-1)?.blows ?? 0
  const struckOut = how === 'microphone' && ear.on && struckNow > 0 && (ear.heard.quietS ?? 0) > QUIET_MS / 1000
  const { clear } = ear
  useEffect(() => {
    if (!struckOut) return
    clear()
    latest.current(struckNow)
  }, [struckOut, struckNow, clear, latest])
  const should = asked === 'quarters' ? time.quarters : time.blows
  const word = asked === 'quarters' ? 'of the quarters' : should === 1 ? 'blow' : 'blows'
  usePedalAction(
    !pedal
      ? null
      : how === 'microphone'
        ? ear.on
          ? struckNow > 0
            ? {
                label: `Press to keep ${struckNow} ${struckNow === 1 ? 'blow' : 'blows'} for ${timeInWords(time)}`,
                hint: 'it is kept by itself once it is quiet',
                press: () => {
                  clear()
                  return finish(struckNow)
                },
              }
            : { label: 'Press to stop the microphone', hint: `hears ${timeInWords(time)}`, press: ear.stop }
          : { label: `Press to hear ${timeInWords(time)} strike`, hint: 'by the microphone', press: () => ear.start() }
        : how === 'pedal'
          ? {
              label: `Press at each ${asked === 'quarters' ? 'phrase or call' : 'blow'} of ${timeInWords(time)}`,
              hint: n === null ? 'it is kept once it is quiet' : `${n} so far`,
              rhythmic: true,
              press: () => {
                count(1)
                return () => count(-1)
              },
            }
          : {
              label: `Press if ${timeInWords(time)} strikes ${should} ${word}`,
              hint: 'else type what it struck, then Enter',
              press: () => finish(should),
            },
  )
  return (
    <div className={styles.counting}>
      <p className={styles.big} aria-live="polite">
        {timeInWords(time).replace(/^./, (c) => c.toUpperCase())}:{' '}
        <strong>
          {(how === 'microphone' && struckNow > 0 ? struckNow : n) ??
            (asked === 'blows' ? row?.blows : row?.quarters) ??
            '–'}
        </strong>{' '}
        of {should} {word}
      </p>
      <Group align="end">
        {how === 'microphone' ? (
          <Button size="lg" onClick={() => (ear.on ? ear.stop() : ear.start())}>
            {ear.on ? 'Stop the microphone' : 'Hear it strike'}
          </Button>
        ) : how === 'pedal' ? (
          <>
            <Button size="lg" variant="default" onClick={() => count(1)}>
              {asked === 'quarters' ? 'A phrase or call' : 'A blow'}
            </Button>
            <Button size="lg" disabled={n === null} onClick={() => finish(n ?? 0)}>
              It has finished
            </Button>
          </>
        ) : (
          <>
            <Button size="lg" onClick={() => finish(should)}>
              {should}, as it should
            </Button>
            <Figure
              label="Else it struck"
              draftOf={`${time.hour}:${time.quarter} ${asked}`}
              value={null}
              of={[CountSchema, asked]}
              onKeep={(v) => v !== null && finish(v)}
            />
          </>
        )}
        <Button size="lg" variant="subtle" onClick={() => finish(0)}>
          Silent
        </Button>
      </Group>
      {how === 'microphone' && (
        <p className={ear.sentence === '' ? 'quiet' : undefined} role={ear.sentence === '' ? undefined : 'alert'}>
          {ear.sentence !== ''
            ? ear.sentence
            : ear.on
              ? 'It hears. Move the hands on; the count is kept once it has been quiet for five seconds.'
              : 'Put the microphone near the bell or the rods.'}
        </p>
      )}
    </div>
  )
}

/** What was heard, as a person would tell it, and which faults make it sound so. */
function Pattern({
  setUp,
  heard,
  onShowFault,
}: {
  setUp: Pick<StrikeSetUp, 'kind' | 'halves'>
  heard: StrikeCountRow[]
  onShowFault: (key: string) => void
}) {
  const words = patternInWords(setUp, heard)
  const explained = faultsOfPattern(setUp, heard).slice(0, 3)
  const right = heard.length > 0 && words.startsWith('All that was counted is right')
  return (
    <div className={right || heard.length === 0 ? undefined : parts.asked}>
      <h3>{words}</h3>
      {explained.length > 0 && (
        <ol className={styles.explained} aria-label="What makes it strike so">
          {explained.map(({ fault, amount, misfits }) => (
            <li key={fault.key}>
              <b>{fault.title}</b>
              {fault.usual.length > 1 && ` (${Number(amount.toFixed(2))} ${fault.unit})`}
              {misfits === 0 ? ': it would strike just so.' : `: it would strike so, but for ${misfits}.`}
              <p>{fault.cure}</p>
              <Button variant="subtle" size="compact-md" onClick={() => onShowFault(fault.key)}>
                Show it in the model
              </Button>
            </li>
          ))}
        </ol>
      )}
      {!right && heard.length > 0 && explained.length === 0 && (
        <p>
          No single part that stands wrong makes it strike so: count the wrong hours once more, then look for a part
          that slips.
        </p>
      )}
    </div>
  )
}
