import { blankWheelSheet, type WheelSheetChange, type WheelSheetRow } from '@treadle/contract'
import {
  FieldError,
  freshTrack,
  isLookedAt,
  lanternTrundles,
  stepsOfWay,
  unlessRefused,
  waysOut,
  wheelReversed,
  type Reversed,
} from '@treadle/core'
import { Button, Textarea } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { v5 } from 'uuid'
import { useDonorsFitting, useSettings, useTable } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { WaysOut } from '../../job/WaysOut.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { Steps } from '../../parts/Steps.tsx'
import { useStop } from '../../parts/useStop.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import plates from '../../job/plates/Plates.module.css'
import { DonorsFor } from './DonorsFor.tsx'
import { nextOf } from './next.ts'
import { partTitle, partsOf, sheetOf, type MovementPart } from './partsOf.ts'
import { PinionSheet } from './PinionSheet.tsx'
import { WheelSheet } from './WheelSheet.tsx'

const NAMESPACE = '0b6a4f9c-3d1e-4d58-9d0e-6f4b1c2a7e31'

/** Every wheel and pinion: which tooth, leaf or trundle is bad, what may be done about it, and the work step by step. */
export function WheelsSurface() {
  const data = useJobData()
  const { job, wheels } = data
  const { data: settings } = useSettings()
  const { data: table } = useTable('ways')
  const navigate = useNavigate()
  const [shown, goTo] = useStop()
  const rows = useRows<WheelSheetRow>('wheels', 'donors')
  const all = partsOf(data)
  const at = Math.max(
    0,
    all.findIndex((p) => p.key === shown),
  )
  const part = all[at]
  const next = all[at + 1]
  const stored = part && sheetOf(part, wheels)
  const blank = part && blankOf(job.id, part, stored)
  const sheet = blank && (rows.seen(blank, stored) ?? stored ?? blank)
  const set = (change: Partial<WheelSheetChange>) => {
    if (blank) rows.set(blank, stored, change)
  }
  const wanted = part && sheet ? donorWanted(part, sheet) : null
  const donors = useDonorsFitting(wanted, sheet?.donorId ?? null)
  const reversed = sheet ? reversedOf(sheet) : null
  const track = sheet ? trackOf(sheet) : null
  const ways =
    part && sheet && table
      ? waysOut(
          sheet,
          {
            click: part.hasClick ? sheet : null,
            teeth: sheet.count ?? part.count,
            escape: part.escape,
            donors: donors.data?.length ?? 0,
            freshTrack: track !== null && track.way !== null,
          },
          [...table.values.ways],
        )
      : []
  const way = ways.find((w) => w.key === sheet?.way)
  const steps =
    part && sheet
      ? stepsOfWay(sheet.way, {
          rivetMm: sheet.rivetMm,
          reversed,
          hasClick: part.hasClick,
          trundlesMm: sheet.trundlesMm,
          shroudLoose: sheet.shroud === 'bad',
          teeth: sheet.faults.map((f) => f.tooth),
          moveMm: track?.moveMm ?? 0,
          moveWay: track?.way ?? null,
        })
      : []
  const waitsForOwner = way !== undefined && !way.undone && sheet?.ownerAgreed === false
  const now = part && sheet && nextOf({ part, steps, done: sheet.done, waitsForOwner, next })
  usePedalAction(
    now && part && sheet
      ? {
          label: now.label,
          hint: now.hint,
          press: () => {
            switch (now.what) {
              case 'step':
                set({ done: [...sheet.done, now.key] })
                return () => set({ done: sheet.done })
              case 'next-part':
                if (next) goTo(next.key)
                return () => goTo(part.key)
              case 'springs':
                return void navigate(`/jobs/${job.id}/springs`)
              case 'ask-owner':
                return
            }
          },
        }
      : null,
  )
  if (!part || !sheet || !settings)
    return (
      <>
        <h2>No wheel is known yet</h2>
        <p className={parts.say}>Count the trains first: each wheel and pinion that is counted has a sheet here.</p>
        <Button component={Link} to="../trains">
          Count the trains
        </Button>
      </>
    )
  const looked = isLookedAt(sheet)
  return (
    <div className={parts.columns}>
      <section>
        <h2>
          {partTitle(part)}, {part.train}
        </h2>
        {part.part === 'wheel' ? (
          <WheelSheet key={part.key} part={part} sheet={sheet} reversed={reversed} onSet={set} />
        ) : (
          <PinionSheet
            key={part.key}
            part={part}
            sheet={sheet}
            track={track}
            onSet={set}
            onKind={(kind) => rows.set({ ...blank, part: kind }, stored, { part: kind })}
          />
        )}
        {steps.length > 0 && (
          <>
            <h3 className={parts.next}>{way?.title}</h3>
            <Steps steps={steps} done={sheet.done} onDone={(done) => set({ done })} locked={waitsForOwner} />
          </>
        )}
      </section>
      <section>
        {(looked || sheet.way !== '') && (
          <WaysOut
            ways={ways}
            chosen={sheet.way}
            ownerAgreed={sheet.ownerAgreed}
            currency={settings.currency}
            onChoose={(key) => set({ way: key, done: [] })}
            onAgreed={(ownerAgreed) => set({ ownerAgreed })}
          />
        )}
        <DonorsFor
          wanted={wanted}
          found={donors.data ?? []}
          chosen={sheet.donorId}
          onChoose={(donorId) => set({ donorId })}
        />
        <h3 className={parts.next}>Wheels and pinions</h3>
        {all.map((p) => (
          <PartButton key={p.key} part={p} row={sheetOf(p, wheels)} here={p === part} onGo={() => goTo(p.key)} />
        ))}
        <Textarea
          mt="md"
          label="Note"
          key={part.key}
          defaultValue={sheet.note}
          maxLength={500}
          onBlur={(e) => e.currentTarget.value !== sheet.note && set({ note: e.currentTarget.value })}
        />
      </section>
    </div>
  )
}

function PartButton({
  part,
  row,
  here,
  onGo,
}: {
  part: MovementPart
  row: WheelSheetRow | undefined
  here: boolean
  onGo: () => void
}) {
  const bad =
    row && (row.faults.length > 0 || badClick(row) || row.worn === 'working' || row.worn === 'both' || badTrundles(row))
  const clickOpen = part.hasClick && (!row || [row.click, row.clickSpring, row.rivet].includes(''))
  const state =
    clickOpen && !bad
      ? 'watch'
      : !row
        ? 'none'
        : row.way !== '' && row.way !== 'leave'
          ? 'watch'
          : bad
            ? 'must'
            : 'sound'
  return (
    <button
      type="button"
      className={here ? `${plates.item} ${plates.here}` : plates.item}
      aria-pressed={here}
      onClick={onGo}
    >
      <Mark
        state={state}
        label={
          clickOpen && !bad
            ? 'click not judged'
            : { none: 'not looked at', watch: 'to be done', must: 'bad', sound: 'looked at' }[state]
        }
      />
      <span>
        {partTitle(part)}
        <small>
          {part.train}, {part.count ?? '?'} {part.part === 'wheel' ? 'teeth' : 'leaves'}
          {clickOpen && ', click not judged'}
        </small>
      </span>
    </button>
  )
}

const badTrundles = ({ trundlesMm, shroud }: WheelSheetRow) => {
  const all = trundlesMm.filter((mm): mm is number => mm !== null)
  return shroud === 'bad' || (all.length >= 3 && lanternTrundles(all).replace.length > 0)
}
const badClick = (row: WheelSheetRow) => [row.click, row.clickSpring, row.rivet].includes('bad')

function blankOf(jobId: string, part: MovementPart, stored: WheelSheetRow | undefined): WheelSheetChange {
  const { train, arbor, arborIndex } = part
  const kind = stored?.part ?? part.part
  const id = v5(`${jobId} ${train} ${arbor} ${part.part}`, NAMESPACE)
  return { ...blankWheelSheet(id, { train, arbor, arborIndex, part: kind }), count: part.count }
}

/** The holes mirrored, where a line is chosen. */
function reversedOf(sheet: WheelSheetChange): Reversed | null {
  const deg = sheet.mirrorDeg
  if (deg === null || sheet.holes.length === 0) return null
  const made = unlessRefused(() => wheelReversed(sheet.holes, deg, Math.max(0.8, sheet.rivetMm ?? 0)))
  return made instanceof FieldError ? null : made
}

function trackOf({ leafMm, grooveFromMm, grooveToMm, thickMm }: WheelSheetChange) {
  if (leafMm === null || grooveFromMm === null || grooveToMm === null || thickMm === null) return null
  const track = unlessRefused(() => freshTrack(leafMm, grooveFromMm, grooveToMm, thickMm))
  return track instanceof FieldError ? null : track
}

/** The same part as a donor would have to be; nothing while too little is known to ask. */
function donorWanted(part: MovementPart, sheet: WheelSheetChange) {
  if (sheet.part === 'lantern' || (sheet.count ?? part.count) === null) return null
  const count = sheet.count ?? part.count
  const moduleMm =
    part.moduleMm ?? (sheet.outsideMm !== null && count !== null ? sheet.outsideMm / (count + 2.7) : null)
  return {
    kind: part.escape ? ('escape wheel' as const) : part.part,
    count,
    moduleMm: part.part === 'wheel' ? moduleMm : part.moduleMm,
    boreMm: sheet.boreMm,
    outsideMm: sheet.outsideMm,
    arborMm: null,
    side: '' as const,
  }
}
