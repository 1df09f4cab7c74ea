import { TRAY_TITLES, TRAYS, type StripStepRow } from '@treadle/contract'
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { Button, Group, NativeSelect, TextInput } from '@mantine/core'
import { IconGripVertical } from '@tabler/icons-react'
import { memo, useState } from 'react'
import parts from '../../parts/parts.module.css'
import { Figure } from '../../parts/Figure.tsx'
import styles from './Strip.module.css'
import type { StripLog } from '../../job/useStripLog.ts'

/** The log in its order; a step is dragged by its grip, or lifted with Space and moved with the arrows. */
export function StepList({ log }: { log: StripLog }) {
  const [open, setOpen] = useState<string | null>(null)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) log.move(String(active.id), String(over.id))
  }
  const names = new Map(log.steps.map((s) => [s.id as string | number, s.part]))
  const announcements = {
    onDragStart: ({ active }: { active: { id: string | number } }) => `Lifted ${names.get(active.id) ?? ''}.`,
    onDragOver: ({ over }: { over: { id: string | number } | null }) =>
      over ? `Over ${names.get(over.id) ?? ''}.` : undefined,
    onDragEnd: ({ over }: { over: { id: string | number } | null }) =>
      over ? `Put at ${names.get(over.id) ?? ''}.` : 'Put back.',
    onDragCancel: () => 'Put back.',
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{ announcements }}
    >
      <SortableContext items={log.steps.map((s) => s.id)} strategy={verticalListSortingStrategy}>
        <ol className={styles.steps}>
          {log.steps.map((step, i) => (
            <Step
              key={step.id}
              step={step}
              number={i + 1}
              open={open === step.id}
              onOpen={() => setOpen(open === step.id ? null : step.id)}
              log={log}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  )
}

interface StepProps {
  step: StripStepRow
  number: number
  open: boolean
  onOpen: () => void
  log: StripLog
}

const Step = memo(StepOf, (a, b) => a.step === b.step && a.number === b.number && a.open === b.open && !b.open)

function StepOf({ step, number, open, onOpen, log }: StepProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: step.id })
  return (
    <li ref={setNodeRef} className={styles.step} style={{ transform: CSS.Translate.toString(transform), transition }}>
      <button
        type="button"
        className={styles.grip}
        {...attributes}
        {...listeners}
        aria-label={`Move step ${number}, ${step.part}`}
      >
        <IconGripVertical size={22} />
      </button>
      <span className={styles.number}>{number}</span>
      {step.photoId === null ? (
        <span className={styles.noPicture} />
      ) : (
        <a href={`/api/photos/${step.photoId}/screen`} target="_blank" rel="noreferrer">
          <img src={`/api/photos/${step.photoId}/thumb`} alt={`Step ${number}: ${step.part}`} loading="lazy" />
        </a>
      )}
      <span className={parts.grow}>
        <strong>{step.part}</strong>
        {step.count > 1 && <span className="quiet">, {step.count} parts in all</span>}
        <br />
        <span className="quiet">
          {[TRAY_TITLES[step.tray], step.screws, step.marks, step.remark].filter(Boolean).join('; ')}
        </span>
      </span>
      <Button variant="subtle" size="sm" aria-expanded={open} aria-label={`Change step ${number}`} onClick={onOpen}>
        {open ? 'Close' : 'Change'}
      </Button>
      {open && <Change step={step} log={log} onDone={onOpen} />}
    </li>
  )
}

function Change({ step, log, onDone }: { step: StripStepRow; log: StripLog; onDone: () => void }) {
  const [draft, setDraft] = useState(step)
  const text = (field: 'part' | 'screws' | 'marks' | 'remark', label: string) => (
    <TextInput
      label={label}
      value={draft[field]}
      onChange={(e) => setDraft({ ...draft, [field]: e.currentTarget.value })}
    />
  )
  return (
    <div className={styles.change}>
      <div className={parts.fields}>
        {text('part', 'Part')}
        <NativeSelect
          label="Tray"
          value={draft.tray}
          onChange={(e) => setDraft({ ...draft, tray: e.currentTarget.value as StripStepRow['tray'] })}
          data={TRAYS.map((t) => ({ value: t, label: TRAY_TITLES[t] }))}
        />
        <Figure
          label="Parts out"
          draftOf={step.id}
          value={draft.count}
          min={1}
          max={200}
          whole
          onKeep={(count) => setDraft({ ...draft, count: count ?? 1 })}
        />
        {text('screws', 'Screws and their holes')}
        {text('marks', 'Marks')}
        {text('remark', 'Remark')}
      </div>
      <Group>
        <Button
          size="sm"
          disabled={draft.part.trim() === ''}
          onClick={() => {
            const { part, tray, count, screws, marks, remark } = draft
            log.change(step, { part, tray, count, screws, marks, remark }, `changed ${step.part}`)
            onDone()
          }}
        >
          Keep the change
        </Button>
        <Button
          size="sm"
          variant="default"
          onClick={() => {
            log.remove(step)
            onDone()
          }}
        >
          Take this step out of the log
        </Button>
      </Group>
    </div>
  )
}
