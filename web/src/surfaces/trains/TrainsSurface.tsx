import { blankSheet, TrainSheetChange, type TrainSheetRow } from '@treadle/contract'
import { arborsOfPeriod, compared, FieldError, motionWork, trainSheet, type TrainSheet } from '@treadle/core'
import { Button, Group, NativeSelect, SegmentedControl, Switch, TextInput } from '@mantine/core'
import { useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { useDraft } from '../../parts/useDraft.ts'
import { useRows } from '../../job/useRows.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { LostCount } from './LostCount.tsx'
import { TrainPicture } from '../../parts/TrainPicture.tsx'
import styles from './Trains.module.css'

/** The counts of each train: what turns in how long, what it beats, how long it runs, what is missing. */
export function TrainsSurface() {
  const { clock, trainSheets } = useJobData()
  const [train, setTrain] = useState(clock.trains[0]?.train ?? 'going')
  const kept = trainSheets.find((s) => s.train === train)
  return (
    <>
      {clock.trains.length > 1 && (
        <SegmentedControl
          aria-label="Train"
          value={train}
          onChange={setTrain}
          data={clock.trains.map((t) => ({ value: t.train, label: `${t.train[0]?.toUpperCase()}${t.train.slice(1)}` }))}
          mb="sm"
        />
      )}
      <Sheet
        key={train}
        kept={kept ?? null}
        train={train}
        unwritten={clock.trains.map((t) => t.train).find((t) => !trainSheets.some((s) => s.train === t))}
        onTrain={setTrain}
      />
    </>
  )
}

function reckoned(sheet: Omit<TrainSheetChange, 'version'>): TrainSheet | FieldError {
  try {
    return trainSheet(sheet.arbors, sheet.hourly, sheet.escape, sheet.greatTurns)
  } catch (error) {
    if (error instanceof FieldError) return error
    throw error
  }
}

interface SheetProps {
  kept: TrainSheetRow | null
  train: TrainSheetChange['train']
  /** the first train whose counts are not written down */
  unwritten: TrainSheetChange['train'] | undefined
  onTrain: (train: TrainSheetChange['train']) => void
}

function Sheet({ kept, train, unwritten, onTrain }: SheetProps) {
  const { clock, listenings } = useJobData()
  const rows = useRows<TrainSheetChange>('trains')
  const [blank] = useState(() => blankSheet(uuid(), train))
  const { row: draft, base, set: setDraft, dirty, forget } = useDraft(bare(kept ?? blank), `train ${clock.id} ${train}`)
  const sheet = useMemo(() => reckoned(draft), [draft])
  const whole = sheet instanceof FieldError ? null : sheet
  const keep = () => rows.keep(draft, base, forget)
  usePedalAction(
    dirty
      ? whole
        ? { label: 'Press to keep the counts', hint: `${train} train`, press: keep }
        : { label: 'Type what is missing, then Enter', hint: 'the counts can’t be so yet', press: () => undefined }
      : unwritten !== undefined && unwritten !== train
        ? {
            label: `Press for the ${unwritten} train`,
            hint: 'its counts are not written down',
            press: () => {
              onTrain(unwritten)
              return () => onTrain(train)
            },
          }
        : null,
  )
  const setArbor = (i: number, part: Partial<TrainSheetChange['arbors'][number]>) =>
    setDraft({ arbors: draft.arbors.map((a, n) => (n === i ? { ...a, ...part } : a)) })
  const heard = listenings.at(-1)?.beatsPerHour ?? null
  return (
    <div className={parts.columns}>
      <section>
        <h2>Counts, from the great wheel up</h2>
        <table className={styles.counts}>
          <thead>
            <tr>
              <th scope="col">Arbor</th>
              <th scope="col">Pinion</th>
              <th scope="col">Wheel</th>
              <th scope="col">Turns once in</th>
              <th scope="col">
                <span className={styles.hidden}>Take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {draft.arbors.map((arbor, i) => {
              const turning = whole?.arbors[i]
              return (
                <tr key={i}>
                  <td>
                    <TextInput
                      aria-label={`Name of arbor ${i + 1}`}
                      value={arbor.name}
                      maxLength={40}
                      onChange={(e) => setArbor(i, { name: e.currentTarget.value })}
                    />
                  </td>
                  <td>
                    {i > 0 && (
                      <Figure
                        label={`Pinion of ${arbor.name}`}
                        draftOf={`${train} ${i}`}
                        value={arbor.pinion}
                        min={4}
                        max={100}
                        whole
                        onKeep={(pinion) => setArbor(i, { pinion })}
                      />
                    )}
                  </td>
                  <td>
                    <Figure
                      label={`Wheel of ${arbor.name}`}
                      draftOf={`${train} ${i}`}
                      value={arbor.wheel}
                      min={3}
                      max={1000}
                      whole
                      onKeep={(wheel) => setArbor(i, { wheel })}
                    />
                  </td>
                  <td className={styles.period}>
                    {turning?.periodS == null ? '–' : periodWords(turning.periodS)}
                    {turning?.turn && <span className="quiet"> {turning.turn}</span>}
                  </td>
                  <td>
                    {draft.arbors.length > 2 && i > 0 && (
                      <Button
                        variant="subtle"
                        size="compact-md"
                        aria-label={`Take out ${arbor.name}`}
                        onClick={() => setDraft({ arbors: draft.arbors.filter((_, n) => n !== i) })}
                      >
                        ✕
                      </Button>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
        <Group mt="sm" align="end">
          <Button
            variant="default"
            disabled={draft.arbors.length >= 12}
            onClick={() => {
              const at = Math.max(1, draft.arbors.length - 1)
              const more = { name: 'Another arbor', pinion: null, wheel: null }
              setDraft({ arbors: [...draft.arbors.slice(0, at), more, ...draft.arbors.slice(at)] })
            }}
          >
            One more arbor
          </Button>
          <NativeSelect
            label="Turns once an hour"
            value={draft.hourly === null ? '' : String(draft.hourly)}
            onChange={(e) => setDraft({ hourly: e.currentTarget.value === '' ? null : Number(e.currentTarget.value) })}
            data={[
              { value: '', label: 'none of them' },
              ...draft.arbors.map((a, i) => ({ value: String(i), label: a.name })),
            ]}
          />
          <Figure
            label="Turns of the great wheel"
            draftOf={train}
            value={draft.greatTurns}
            of={[TrainSheetChange, 'greatTurns']}
            onKeep={(greatTurns) => setDraft({ greatTurns })}
          />
        </Group>
        <Switch
          mt="md"
          label="The last wheel is the escape wheel"
          checked={draft.escape}
          onChange={(e) => setDraft({ escape: e.currentTarget.checked })}
        />
        {sheet instanceof FieldError && <p className={styles.wrong}>{sheet.message}</p>}
        <Button mt="md" disabled={!dirty || sheet instanceof FieldError} onClick={keep}>
          Keep the counts
        </Button>
      </section>
      <section>
        {whole && <TrainPicture sheet={whole} />}
        {whole && <Findings sheet={whole} draft={draft} setDraft={setDraft} heard={heard} />}
        <LostCount
          draft={draft}
          heard={heard ?? clock.pendulum.beatsPerHour}
          onTake={(arbors) => setDraft({ arbors })}
        />
      </section>
    </div>
  )
}

function Findings({
  sheet,
  draft,
  setDraft,
  heard,
}: {
  sheet: TrainSheet
  draft: TrainSheetChange
  setDraft: (part: Partial<TrainSheetChange>) => void
  heard: number | null
}) {
  const { clock } = useJobData()
  const named = draft.faultPeriodS === null ? null : arborsOfPeriod(sheet, draft.faultPeriodS)
  return (
    <>
      {compared(sheet, { heard, lengthMm: clock.pendulum.lengthMm, windsEveryDays: clock.pendulum.windsEveryDays }).map(
        (c) => (
          <p key={c.says} className={styles.finding}>
            <Mark state={c.state} label={c.state === 'sound' ? 'agrees' : 'does not agree'} /> <span>{c.says}</span>
          </p>
        ),
      )}
      {clock.pendulum.ticks === 'once a period' && draft.escape && sheet.beatsPerHour !== null && (
        <p className={styles.finding}>
          <Mark state="none" />{' '}
          <span>It ticks once a period: {Math.round(sheet.beatsPerHour / 2)} ticks are heard an hour.</span>
        </p>
      )}
      <Figure
        label="A fault comes back every"
        draftOf={draft.train}
        unit="s"
        value={draft.faultPeriodS}
        of={[TrainSheetChange, 'faultPeriodS']}
        onKeep={(faultPeriodS) => setDraft({ faultPeriodS })}
      />
      {named && (
        <p className={styles.finding}>
          <Mark state={named[0] ? 'watch' : 'none'} label={named[0] ? 'found' : 'none'} />{' '}
          <span>
            {named[0]
              ? `${named.map((n) => n.name).join(' or ')}: it turns once in ${periodWords(named[0].periodS)}. Look at that arbor, its wheel and its pinion first.`
              : 'No arbor of this train turns in that time.'}
          </span>
        </p>
      )}
      {draft.train === 'going' && <Motion draft={draft} setDraft={setDraft} />}
    </>
  )
}

const MOTION = [
  ['cannonPinion', 'Cannon pinion'],
  ['minuteWheel', 'Minute wheel'],
  ['minutePinion', 'Minute pinion'],
  ['hourWheel', 'Hour wheel'],
] as const

function Motion({ draft, setDraft }: { draft: TrainSheetChange; setDraft: (part: Partial<TrainSheetChange>) => void }) {
  const [typed, setTyped] = useState<Partial<NonNullable<TrainSheetChange['motion']>>>(draft.motion ?? {})
  const set = (name: (typeof MOTION)[number][0], value: number | null) => {
    const next = { ...typed, [name]: value ?? undefined }
    setTyped(next)
    const { cannonPinion, minuteWheel, minutePinion, hourWheel } = next
    const whole = cannonPinion && minuteWheel && minutePinion && hourWheel
    setDraft({ motion: whole ? { cannonPinion, minuteWheel, minutePinion, hourWheel } : null })
  }
  const work = draft.motion
    ? motionWork(draft.motion.cannonPinion, draft.motion.minuteWheel, draft.motion.minutePinion, draft.motion.hourWheel)
    : null
  return (
    <details open={draft.motion !== null}>
      <summary className={styles.summary}>Motion work</summary>
      <div className={parts.fields}>
        {MOTION.map(([name, label]) => (
          <Figure
            key={name}
            label={label}
            value={typed[name] ?? null}
            min={4}
            max={500}
            whole
            onKeep={(v) => set(name, v)}
          />
        ))}
      </div>
      {work && (
        <p className={styles.finding}>
          <Mark state={work.right ? 'sound' : 'must'} label={work.right ? 'right' : 'wrong'} />{' '}
          <span>
            {work.right ? '12 : 1, as it must be.' : `${work.ratio.toFixed(4)} : 1; it must be 12 : 1. Count again.`}
          </span>
        </p>
      )}
    </details>
  )
}

function bare({
  id,
  version,
  train,
  arbors,
  hourly,
  escape,
  greatTurns,
  motion,
  faultPeriodS,
}: TrainSheetChange): TrainSheetChange {
  return { id, version, train, arbors, hourly, escape, greatTurns, motion, faultPeriodS }
}

function periodWords(seconds: number): string {
  if (seconds >= 5400) return `${(seconds / 3600).toFixed(2)} h`
  if (seconds >= 180) return `${(seconds / 60).toFixed(2)} min`
  return `${seconds.toFixed(2)} s`
}
