import {
  blankOilSheet,
  OIL_SIDES,
  type OilSheetChange,
  type OilRow,
  type OilSheetRow,
  type OilSide,
} from '@treadle/contract'
import { bottleStands, OIL_TROUBLE, oilMapOf, type OilPoint } from '@treadle/core'
import { Button, NativeSelect, Textarea } from '@mantine/core'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useOils } from '../../data/queries.ts'
import { OverrideForm } from '../../job/OverrideForm.tsx'
import { useHappened } from '../../job/useHappened.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useWorkHeld } from '../../job/useWorkHeld.ts'
import { useRows } from '../../job/useRows.ts'
import { Fold } from '../../parts/Fold.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useStop } from '../../parts/useStop.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { AddPoint } from './AddPoint.tsx'
import { OilPlate } from './OilPlate.tsx'
import { OilPointSheet } from './OilPointSheet.tsx'
import styles from './Oil.module.css'
import { Witness } from './Witness.tsx'

const NAMESPACE = '9d3d6f2a-0a6e-4d4e-8a27-53b1f4f0c9b5'
const SIDE_TITLES: Record<OilSide, string> = {
  front: 'From the front',
  back: 'From the back',
  inside: 'From inside, and what stays dry',
}

/** Every point of this movement with what it gets and how much, ticked off front and back; and what stays dry. */
export function OilSurface() {
  const data = useJobData()
  const { job, clock, oilSheets, events } = data
  const rows = useRows<OilSheetRow>('oil-sheets')
  const happened = useHappened()
  const navigate = useNavigate()
  const { data: oils } = useOils()
  const [stop, goTo] = useStop()
  const blank = { ...blankOilSheet(v5(job.id, NAMESPACE)), jobId: job.id, who: '', at: '' }
  const stored = oilSheets[0]
  const sheet = rows.seen(blank, stored) ?? blank
  const set = (part: Partial<OilSheetChange>) => rows.set(blank, stored, part)
  const points = oilMapOf(sheet, {
    ...data,
    trains: clock.trains,
    work: clock.work,
    pendulum: clock.pendulum,
    scopeTrain: job.scope === 'one-train' ? job.scopeTrain : '',
  })
  const settled = (p: OilPoint) => sheet.done.includes(p.key) || sheet.left.includes(p.key)
  const open = points.filter((p) => !settled(p))
  const point = points.find((p) => p.key === stop) ?? open[0] ?? points[0]
  const [side, setSide] = useState<OilSide | null>(null)
  const shownSide = side ?? point?.side ?? 'front'
  const oiled = events.findLast((e) => e.kind === 'oiled')
  const asked = useWorkHeld()({ work: 'oil' })
  const held = oiled === undefined ? asked : null
  const [overriding, setOverriding] = useState(false)
  const tick = (p: OilPoint, on: boolean) =>
    set({
      done: on ? [...sheet.done.filter((k) => k !== p.key), p.key] : sheet.done.filter((k) => k !== p.key),
      left: sheet.left.filter((k) => k !== p.key),
    })
  const leave = (p: OilPoint) => set({ left: [...sheet.left, p.key], done: sheet.done.filter((k) => k !== p.key) })
  const choose = (p: OilPoint) => {
    setSide(null)
    goTo(p.key)
  }
  usePedalAction(
    held
      ? {
          label: 'Press to go and run it dry',
          hint: held.detail ?? held.title,
          press: () => void navigate('../assemble'),
        }
      : point && !settled(point)
        ? {
            label: point.with === 'dry' ? `Press if it is dry: ${point.name}` : `Press when oiled: ${point.name}`,
            hint: `${point.with}${point.with === 'dry' ? '' : `, ${point.howMuch}`}; ${open.length} to go`,
            press: () => {
              tick(point, true)
              // On to the next one that is open, from here: front first, then back, then inside.
              const after = points.slice(points.indexOf(point) + 1).find((p) => !settled(p))
              choose(after ?? point)
              return () => {
                tick(point, false)
                goTo(point.key)
              }
            },
          }
        : open.length > 0
          ? { label: 'Press for the next point', hint: open[0]?.name ?? '', press: () => open[0] && choose(open[0]) }
          : oiled === undefined
            ? {
                label: 'Press: it is oiled',
                hint: 'every point is ticked off or left out; its age counts from now',
                press: () => happened('oiled', { note: noteOf(sheet, oils ?? []) }),
              }
            : null,
  )
  return (
    <div className={parts.columns}>
      <section>
        {held && (
          <div className={parts.asked}>
            <h2>Not yet: run it dry first</h2>
            <p>
              {held.detail} Oil hides a tight train. <Link to="../assemble">Run it dry</Link>
              {', or say why it may be oiled all the same.'}
            </p>
            {overriding ? (
              <OverrideForm jobId={job.id} gate="dry" onDone={() => setOverriding(false)} />
            ) : (
              <Button variant="subtle" size="compact-md" onClick={() => setOverriding(true)}>
                Override…
              </Button>
            )}
          </div>
        )}
        {point && (
          <OilPointSheet
            key={point.key}
            point={point}
            done={sheet.done.includes(point.key)}
            left={sheet.left.includes(point.key)}
            locked={held !== null}
            onTick={(on) => tick(point, on)}
            onLeave={() => leave(point)}
            onSink={(sink) =>
              set({
                sinks: [
                  ...sheet.sinks.filter((s) => s.key !== point.key),
                  ...(sink ? [{ key: point.key, ...sink }] : []),
                ],
              })
            }
          />
        )}
        {shownSide !== 'inside' && (
          <OilPlate
            side={shownSide}
            points={points}
            done={sheet.done}
            left={sheet.left}
            chosen={point?.key ?? ''}
            onChoose={choose}
          />
        )}
        <Witness />
      </section>
      <section>
        <h2>With what</h2>
        <div className={styles.oils}>
          {(
            [
              ['pivotOilId', 'pivot oil'],
              ['heavyOilId', 'heavy oil'],
              ['greaseId', 'grease'],
            ] as const
          ).map(([key, kind]) => (
            <OilChoice
              key={key}
              kind={kind}
              oils={(oils ?? []).filter((o) => o.kind === kind)}
              value={sheet[key]}
              onPick={(id) => set({ [key]: id })}
            />
          ))}
        </div>
        <h2 className={parts.next}>
          {open.length === 0
            ? 'All points are ticked off'
            : `${points.length - open.length} of ${points.length} ticked off`}
        </h2>
        {oiled !== undefined ? (
          <p>
            <Mark state="sound" label="oiled" /> It is oiled; its next oil is counted from that.
          </p>
        ) : (
          open.length === 0 && (
            <Button disabled={held !== null} onClick={() => happened('oiled', { note: noteOf(sheet, oils ?? []) })}>
              It is oiled
            </Button>
          )
        )}
        {OIL_SIDES.map((s) => (
          <PointList
            key={s}
            title={SIDE_TITLES[s]}
            points={points.filter((p) => p.side === s)}
            sheet={sheet}
            chosen={point?.key ?? ''}
            onChoose={(p) => {
              setSide(s)
              goTo(p.key)
            }}
          />
        ))}
        <AddPoint taken={points.map((p) => p.name)} onAdd={(added) => set({ added: [...sheet.added, added] })} />
        <Fold title="Rivers, flooded sinks, old oil">
          <dl className={styles.trouble}>
            {OIL_TROUBLE.map((t) => (
              <div key={t.found}>
                <dt>{t.found}</dt>
                <dd>{t.does}</dd>
              </div>
            ))}
          </dl>
        </Fold>
        <Textarea
          label="Note"
          autosize
          defaultValue={sheet.note}
          maxLength={1000}
          mt="sm"
          onBlur={(e) => e.currentTarget.value !== sheet.note && set({ note: e.currentTarget.value })}
        />
      </section>
    </div>
  )
}

/** What goes into the log with the oiling: which oils. */
function noteOf(sheet: OilSheetChange, oils: OilRow[]): string {
  const names = [sheet.pivotOilId, sheet.heavyOilId, sheet.greaseId].flatMap((id) => {
    const oil = oils.find((o) => o.id === id)
    return oil ? [oil.name] : []
  })
  return [
    names.length === 0 ? '' : `With ${names.join(', ')}.`,
    sheet.left.length === 0 ? '' : `${sheet.left.length} points left out.`,
  ]
    .filter((w) => w !== '')
    .join(' ')
}

function OilChoice({
  kind,
  oils,
  value,
  onPick,
}: {
  kind: string
  oils: OilRow[]
  value: string | null
  onPick: (id: string | null) => void
}) {
  const [nowS] = useState(() => Date.now() / 1000)
  const chosen = oils.find((o) => o.id === value)
  const bottle = chosen && bottleStands(chosen, nowS)
  return (
    <div>
      <NativeSelect
        label={`${kind.charAt(0).toUpperCase()}${kind.slice(1)}`}
        value={value ?? ''}
        onChange={(e) => onPick(e.currentTarget.value === '' ? null : e.currentTarget.value)}
        data={[
          { value: '', label: oils.length === 0 ? 'none is in the drawers' : 'not said' },
          ...oils.map((o) => ({ value: o.id, label: o.name })),
        ]}
      />
      {bottle && (
        <p className="quiet">
          <Mark
            state={{ fresh: 'sound' as const, old: 'watch' as const, over: 'must' as const }[bottle.stands]}
            label={bottle.stands}
          />{' '}
          Open for {bottle.years.toFixed(1)} years{bottle.stands === 'over' ? ': past its time, take a fresh one' : ''}.
        </p>
      )}
    </div>
  )
}

function PointList({
  title,
  points,
  sheet,
  chosen,
  onChoose,
}: {
  title: string
  points: OilPoint[]
  sheet: OilSheetChange
  chosen: string
  onChoose: (p: OilPoint) => void
}) {
  if (points.length === 0) return null
  return (
    <>
      <h3>{title}</h3>
      <ul className={styles.points} aria-label={title}>
        {points.map((p) => {
          const state = sheet.done.includes(p.key) ? 'sound' : sheet.left.includes(p.key) ? 'watch' : 'none'
          return (
            <li key={p.key}>
              <button type="button" aria-pressed={p.key === chosen} onClick={() => onChoose(p)}>
                <Mark state={state} label={{ sound: 'ticked off', watch: 'left out', none: 'open' }[state]} />
                <span className={parts.grow}>{p.name}</span>
                <span className={p.with === 'dry' ? styles.dry : 'quiet'}>{p.with}</span>
              </button>
            </li>
          )
        })}
      </ul>
    </>
  )
}
