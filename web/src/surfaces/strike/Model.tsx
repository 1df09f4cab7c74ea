import {
  faultsFor,
  STANDS_RIGHT,
  strikesRight,
  strikeStory,
  timeInWords,
  timeKey,
  withFault,
  type StrikeSetUp,
} from '@treadle/core'
import { Button, Group, NativeSelect, Slider } from '@mantine/core'
import { useInterval } from '@mantine/hooks'
import { useMemo, useState } from 'react'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { StrikePicture } from './StrikePicture.tsx'
import styles from './Strike.module.css'

const STEP_MS = 700

/** The strike as it runs: the hands are moved, and what lifts, warns, runs and locks is seen; with a part standing wrong too. */
export function Model({
  setUp,
  fault: faultKey,
  onFault,
  pedal,
}: {
  setUp: Pick<StrikeSetUp, 'kind' | 'halves'>
  fault: string | null
  onFault: (key: string | null) => void
  pedal: boolean
}) {
  const { kind, halves } = setUp
  const faults = faultsFor(kind, halves)
  const fault = faults.find((f) => f.key === faultKey)
  const [amounts, setAmounts] = useState<Record<string, number>>({})
  const amount = fault ? (amounts[fault.key] ?? fault.usual[0] ?? fault.from) : 0
  const times = useMemo(() => strikesRight(kind, halves), [kind, halves])
  const [timeAt, setTimeAt] = useState(() =>
    timeKey(times.find((t) => t.hour === 3 && t.quarter === 0) ?? times[0] ?? { hour: 3, quarter: 0 }),
  )
  const time = times.find((t) => timeKey(t) === timeAt) ?? times[0]
  const [index, setIndex] = useState(0)
  const stands = fault ? withFault(fault, amount) : STANDS_RIGHT
  const story = time ? strikeStory({ kind, halves, stands }, time) : null
  const moments = story?.moments ?? []
  const at = Math.min(index, Math.max(0, moments.length - 1))
  const moment = moments[at]
  const play = useInterval(() => {
    setIndex((i) => {
      if (i + 1 >= moments.length) {
        play.stop()
        return i
      }
      return i + 1
    })
  }, STEP_MS)
  const goTime = (key: string) => {
    play.stop()
    setTimeAt(key)
    setIndex(0)
  }
  const nextTime = times[(times.findIndex((t) => timeKey(t) === timeAt) + 1) % times.length]
  const nextMoment = moments[at + 1]
  usePedalAction(
    pedal && moment
      ? nextMoment
        ? {
            label: `Press to go on: ${nextMoment.title.toLowerCase()}`,
            hint: `${at + 1} of ${moments.length}`,
            rhythmic: true,
            press: () => {
              play.stop()
              setIndex(at + 1)
              return () => setIndex(at)
            },
          }
        : {
            label: `Press for ${nextTime ? timeInWords(nextTime) : 'the next time'}`,
            press: () => {
              if (nextTime) goTime(timeKey(nextTime))
              return () => goTime(timeAt)
            },
          }
      : null,
  )
  if (!time || !story || !moment) return null
  const right = times.find((t) => timeKey(t) === timeAt)
  const off = right !== undefined && (story.struck.blows !== right.blows || story.struck.quarters !== right.quarters)
  return (
    <>
      <p className={styles.moment} aria-live="polite">
        <b>{moment.title}.</b> {moment.says}
      </p>
      <StrikePicture setUp={{ kind, halves, stands }} pose={moment.pose} time={time} fault={fault?.part ?? null} />
      <div className={styles.hands}>
        <Slider
          thumbLabel="Move the hands"
          min={0}
          max={moments.length - 1}
          value={at}
          onChange={(i) => {
            play.stop()
            setIndex(i)
          }}
          label={(i) => moments[i]?.title ?? ''}
        />
      </div>
      <Group mt="md" align="end">
        <NativeSelect
          label="At"
          value={timeAt}
          onChange={(e) => goTime(e.currentTarget.value)}
          data={times.map((t) => ({ value: timeKey(t), label: timeInWords(t) }))}
        />
        <Button
          variant="default"
          onClick={() => {
            if (play.active) return play.stop()
            if (at + 1 >= moments.length) setIndex(0)
            play.start()
          }}
        >
          {play.active ? 'Stop it' : 'Let it run'}
        </Button>
      </Group>
      <div className={styles.fault}>
        <NativeSelect
          label="What if a part stands wrong"
          value={fault?.key ?? ''}
          onChange={(e) => {
            onFault(e.currentTarget.value === '' ? null : e.currentTarget.value)
            setIndex(0)
          }}
          data={[{ value: '', label: 'All stand right' }, ...faults.map((f) => ({ value: f.key, label: f.title }))]}
        />
        {fault && (
          <div className={styles.amount}>
            <span>
              {Number(amount.toFixed(2))} {fault.unit}
            </span>
            <Slider
              thumbLabel={`${fault.title}: how much`}
              min={fault.from}
              max={fault.to}
              step={(fault.to - fault.from) / 40}
              value={amount}
              onChange={(v) => setAmounts({ ...amounts, [fault.key]: v })}
              label={null}
            />
          </div>
        )}
      </div>
      {fault && (
        <div className={parts.asked}>
          <p role="status">
            <Mark state={off ? 'must' : 'watch'} label={off ? 'wrong' : 'right number'} /> {toldOf(story.struck, right)}
          </p>
          <p className={parts.say}>{fault.cure}</p>
        </div>
      )}
    </>
  )
}

type Struck = ReturnType<typeof strikeStory>['struck']

/** What is struck with the fault, against what should be. */
function toldOf(struck: Struck, right: { blows: number; quarters: number } | undefined): string {
  const of = (blows: number, quarters: number) =>
    [quarters > 0 ? `${quarters} of the quarters` : '', blows > 0 ? `${blows} ${blows === 1 ? 'blow' : 'blows'}` : '']
      .filter((w) => w !== '')
      .join(' and ') || 'nothing'
  const what = struck.runsOn ? 'It strikes on without an end' : `It strikes ${of(struck.blows, struck.quarters)}`
  const early = struck.early > 0 ? `, ${struck.early === struck.blows ? 'all' : struck.early} of it at the warning` : ''
  return `${what}${early}; it should be ${of(right?.blows ?? 0, right?.quarters ?? 0)}.`
}
