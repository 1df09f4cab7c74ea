import type { MadePartChange, MadePartRow } from '@treadle/contract'
import {
  drawPart,
  FieldError,
  isMade,
  MADE_PARTS,
  PART_SIZES,
  unlessRefused,
  type MadePart,
  type PartDrawing,
} from '@treadle/core'
import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useNavigate } from 'react-router'
import { FinishUsed } from '../../job/FinishUsed.tsx'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { count } from '../../parts/say.ts'
import { Steps } from '../../parts/Steps.tsx'
import { useStop } from '../../parts/useStop.ts'
import { usePaper } from '../../parts/usePaper.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import plates from '../../job/plates/Plates.module.css'
import styles from './Make.module.css'
import { begunFrom } from './measured.ts'
import { FlatPicture } from './FlatPicture.tsx'
import { PartPicture } from './PartPicture.tsx'

function standingOf(part: MadePartRow): { state: 'sound' | 'watch' | 'none'; label: string } {
  if (isMade(part)) return { state: 'sound', label: 'made' }
  return part.done.length > 0 ? { state: 'watch', label: 'begun' } : { state: 'none', label: 'to be made' }
}

/** Parts that are made for this clock: a drawing with sizes and tolerances, the steps in order, prints true to size. */
export function MakeSurface() {
  const data = useJobData()
  const { job, madeParts } = data
  const navigate = useNavigate()
  const rows = useRows<MadePartRow>('made-parts')
  const [shown, goTo] = useStop('part')
  const [kind, setKind] = useState<MadePart>('arbor')
  const stored = madeParts.find((p) => p.id === shown) ?? madeParts[0]
  const part = stored && (rows.seen(stored, stored) ?? stored)
  const set = (change: Partial<MadePartChange>) => {
    if (stored) rows.set(stored, stored, change)
  }
  const drawing = part ? unlessRefused(() => drawPart(part.part, part.sizes)) : null
  const steps = drawing && !(drawing instanceof FieldError) ? drawing.steps : []
  const step = part && steps.find((s) => !part.done.includes(s.key))
  const next = madeParts[madeParts.findIndex((p) => p.id === part?.id) + 1]
  usePedalAction(
    part
      ? {
          label: step
            ? `Press when done: ${step.title.toLowerCase()}`
            : next
              ? `Press for the next: ${next.part}`
              : 'Press to go on and assemble',
          hint: step && `${part.part}; ${part.done.length + 1} of ${steps.length}`,
          press: () => {
            if (step) {
              set({ done: [...part.done, step.key] })
              return () => set({ done: part.done })
            }
            if (!next) return void navigate(`/jobs/${job.id}/assemble`)
            goTo(next.id)
            return () => goTo(part.id)
          },
        }
      : null,
  )
  const begin = () => {
    const id = uuid()
    const measured = begunFrom(kind, data)
    // Measured sizes that can't be drawn together are left to be typed, from the usual ones.
    const fits = !(unlessRefused(() => drawPart(kind, measured.sizes)) instanceof FieldError)
    const usual = begunFrom(kind, { pivots: [], wheels: [], holes: [] })
    rows.put({ id, version: 0, part: kind, done: [], ...(fits ? measured : { ...usual, name: measured.name }) }, () =>
      goTo(id),
    )
  }
  return (
    <div className={parts.columns}>
      <section>
        {!part && (
          <>
            <h2>Nothing is to be made yet</h2>
            <p className={parts.say}>
              Choose a part: it is drawn from what you measure, with its tolerances and the steps in their order.
            </p>
          </>
        )}
        {part && <PartSheet key={part.id} part={part} drawing={drawing} onSet={set} jobId={job.id} />}
      </section>
      <section>
        {madeParts.map((p) => (
          <button
            key={p.id}
            type="button"
            className={p.id === part?.id ? `${plates.item} ${plates.here}` : plates.item}
            aria-pressed={p.id === part?.id}
            onClick={() => goTo(p.id)}
          >
            <Mark {...standingOf(p)} />
            <span>
              {p.name === '' ? capital(p.part) : p.name}
              <small>
                {p.part}, {isMade(p) ? 'made' : `${count(p.done.length, 'step')} done`}
              </small>
            </span>
          </button>
        ))}
        <Group mt="md" align="end">
          <NativeSelect
            label="A part to make"
            value={kind}
            onChange={(e) => setKind(e.currentTarget.value as MadePart)}
            data={[...MADE_PARTS]}
          />
          <Button onClick={begin}>Draw it</Button>
        </Group>
        {part && (
          <Button mt="md" variant="subtle" onClick={() => rows.remove(part.id)}>
            Take this {part.part} off the list
          </Button>
        )}
        <FinishUsed />
      </section>
    </div>
  )
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)

function PartSheet({
  part,
  drawing,
  jobId,
  onSet,
}: {
  part: MadePartRow
  drawing: PartDrawing | FieldError | null
  jobId: string
  onSet: (change: Partial<MadePartChange>) => void
}) {
  usePaper('A4', '14mm')
  const [wrong, setWrong] = useState<{ key: string; why: string } | null>(null)
  const keep = (key: string, mm: number) => {
    const sizes = { ...part.sizes, [key]: mm }
    const tried = unlessRefused(() => drawPart(part.part, sizes))
    // What can't be drawn with the other sizes is said at its field, and not kept.
    if (tried instanceof FieldError) return setWrong({ key, why: tried.allowed })
    setWrong(null)
    onSet({ sizes })
  }
  const fields = PART_SIZES[part.part]
  return (
    <>
      <h2>{part.name === '' ? capital(part.part) : part.name}</h2>
      <div className={`${parts.fields} ${styles.tools}`}>
        <TextInput
          label="What for"
          defaultValue={part.name}
          maxLength={80}
          onBlur={(e) => e.currentTarget.value !== part.name && onSet({ name: e.currentTarget.value })}
        />
        {fields.map(({ key, title }) => (
          <Figure
            key={key}
            label={title}
            draftOf={part.id}
            unit="mm"
            value={part.sizes[key] ?? null}
            min={0.05}
            max={1000}
            error={wrong?.key === key ? `${title}: ${wrong.why}` : undefined}
            onKeep={(v) => v !== null && keep(key, v)}
          />
        ))}
      </div>
      {drawing && !(drawing instanceof FieldError) && (
        <>
          {drawing.flat ? (
            <FlatPicture drawing={drawing} flat={drawing.flat} name={part.name} />
          ) : (
            <PartPicture drawing={drawing} name={part.name} />
          )}
          <Group className={styles.tools}>
            <Button variant="default" onClick={() => window.print()}>
              Print at true size
            </Button>
            <Button variant="default" component="a" href={`/api/jobs/${jobId}/made-parts/${part.id}.svg`}>
              SVG
            </Button>
            <Button variant="default" component="a" href={`/api/jobs/${jobId}/made-parts/${part.id}.dxf`}>
              DXF
            </Button>
          </Group>
          <div className={styles.tools}>
            <Steps steps={drawing.steps} done={part.done} onDone={(done) => onSet({ done })} />
          </div>
        </>
      )}
    </>
  )
}
