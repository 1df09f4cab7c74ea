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
        ]}
        onPick={setWay}
      />
      {time && (
        <Counting
          key={`${timeKey(time)} ${way}`}
          time={time}
          row={rowOf(time)}
          way={way}
          pedal={pedal}
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
  onKeep,
}: {
  time: Struck
  row: StrikeCountRow | undefined
  way: StrikeCountChange['way']
  pedal: boolean
  onKeep: (part: { quarters: number | null; blows: number | null }) => () => void
}) {
  const asks = [...(time.quarters > 0 ? (['quarters'] as const) : []), ...(time.blows > 0 ? (['blows'] as const) : [])]
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
    if (way !== 'pedal' || n === null || n === 0) return
    const timer = window.setTimeout(() => latest.current(n), QUIET_MS)
    return () => window.clearTimeout(timer)
  }, [n, way, part, latest])
  const should = asked === 'quarters' ? time.quarters : time.blows
  const word = asked === 'quarters' ? 'of the quarters' : should === 1 ? 'blow' : 'blows'
  usePedalAction(
    !pedal
      ? null
      : way === 'pedal'
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
        <strong>{n ?? (asked === 'blows' ? row?.blows : row?.quarters) ?? '–'}</strong> of {should} {word}
      </p>
      <Group align="end">
        {way === 'pedal' ? (
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
