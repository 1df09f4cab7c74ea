import {
  CONDITION_KIND_TITLES,
  CONDITION_KINDS,
  PART_CLASS_TITLES,
  PART_CLASSES,
  type ConditionItem,
  type ConditionRow,
} from '@treadle/contract'
import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useJobData } from '../../job/useJobData.ts'
import { PhotoChoice } from '../../job/PhotoChoice.tsx'
import { PhotoPicker, sendPhotos } from '../../job/PhotoPicker.tsx'
import parts from '../../parts/parts.module.css'
import { useRows } from '../../job/useRows.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Condition.module.css'

/** The condition record: what is original, what was changed, as it was found, with its points on the photos. */
export function ConditionSurface() {
  const { job, conditions, photos } = useJobData()
  const rows = useRows<ConditionRow>('conditions')
  const blank = (): Omit<ConditionItem, 'id' | 'version'> => ({
    kind: 'part',
    name: '',
    class: 'unknown',
    note: '',
    photoId: null,
    x: null,
    y: null,
  })
  const [draft, setDraft] = useState(blank)
  const [shown, setShown] = useState<string | null>(null)
  const photo = photos.find((p) => p.id === shown) ?? photos[0]
  const add = () => {
    if (draft.name.trim() === '') return
    rows.put({ ...draft, name: draft.name.trim(), id: uuid(), version: 0 }, () => setDraft(blank()))
  }
  usePedalAction(
    draft.name.trim() === '' ? null : { label: 'Press to put it on the record', hint: draft.name, press: add },
  )
  const numberOf = (id: string) => conditions.findIndex((c) => c.id === id) + 1
  return (
    <div className={parts.columns}>
      <section>
        <h2>Condition, as it came</h2>
        <p className={parts.say}>
          Record before touching. Keep what comes off in a bag with the clock; mark new parts; leave tool marks and
          makers’ marks as they are.
        </p>
        <div className={parts.fields}>
          <NativeSelect
            label="Kind"
            value={draft.kind}
            onChange={(e) => setDraft({ ...draft, kind: e.currentTarget.value as ConditionItem['kind'] })}
            data={CONDITION_KINDS.map((k) => ({ value: k, label: CONDITION_KIND_TITLES[k] }))}
          />
          <TextInput
            label="What it is"
            value={draft.name}
            maxLength={120}
            onChange={(e) => setDraft({ ...draft, name: e.currentTarget.value })}
            onKeyDown={(e) => e.key === 'Enter' && add()}
          />
          <NativeSelect
            label="Class"
            value={draft.class}
            onChange={(e) => setDraft({ ...draft, class: e.currentTarget.value as ConditionItem['class'] })}
            data={PART_CLASSES.map((c) => ({ value: c, label: PART_CLASS_TITLES[c] }))}
          />
          <TextInput
            label="Note"
            value={draft.note}
            onChange={(e) => setDraft({ ...draft, note: e.currentTarget.value })}
          />
        </div>
        <Button onClick={add} disabled={draft.name.trim() === ''}>
          Put it on the record
        </Button>
        <p className="quiet">
          {draft.x === null
            ? 'Tap the photo to give it a point, or leave it without.'
            : 'It has its point on the photo; tap elsewhere to move it.'}
        </p>
        <ol className={parts.list}>
          {conditions.map((c) => (
            <li key={c.id}>
              <span className={styles.number}>{numberOf(c.id)}</span>
              <span className={parts.grow}>
                <strong>{c.name}</strong>, {PART_CLASS_TITLES[c.class]}
                <br />
                <span className="quiet">{[CONDITION_KIND_TITLES[c.kind], c.note].filter(Boolean).join('. ')}</span>
              </span>
              <NativeSelect
                aria-label={`Class of ${c.name}`}
                size="sm"
                value={c.class}
                onChange={(e) => rows.put({ ...c, class: e.currentTarget.value as ConditionRow['class'] })}
                data={PART_CLASSES.map((k) => ({ value: k, label: PART_CLASS_TITLES[k] }))}
              />
              <Button variant="subtle" size="sm" aria-label={`Take off ${c.name}`} onClick={() => rows.remove(c.id)}>
                Take off
              </Button>
            </li>
          ))}
        </ol>
      </section>
      <section>
        <h2>On the photo</h2>
        {photo ? (
          <>
            <div className={styles.frame}>
              <button
                type="button"
                className={styles.tap}
                aria-label="Give the thing being recorded its point on this photo"
                onClick={(e) => {
                  const box = e.currentTarget.getBoundingClientRect()
                  // By keyboard there is no place to tap: the middle, to be moved by hand.
                  const by = (at: number, from: number, size: number) => (e.detail === 0 ? 0.5 : (at - from) / size)
                  const x = Math.min(1, Math.max(0, by(e.clientX, box.left, box.width)))
                  const y = Math.min(1, Math.max(0, by(e.clientY, box.top, box.height)))
                  setDraft({ ...draft, photoId: photo.id, x, y })
                }}
              >
                <img
                  src={`/api/photos/${photo.id}/screen`}
                  alt={photo.caption || 'Photo of the clock'}
                  className={parts.photo}
                />
              </button>
              {conditions
                .filter((c) => c.photoId === photo.id && c.x !== null && c.y !== null)
                .map((c) => (
                  <Point key={c.id} x={c.x ?? 0} y={c.y ?? 0} label={String(numberOf(c.id))} title={c.name} />
                ))}
              {draft.photoId === photo.id && draft.x !== null && draft.y !== null && (
                <Point x={draft.x} y={draft.y} label="•" title="being recorded" />
              )}
            </div>
            {photos.length > 1 && <PhotoChoice photos={photos} chosen={photo.id} onChoose={setShown} />}
          </>
        ) : (
          <p className={parts.say}>No photo yet. Take one before anything is touched.</p>
        )}
        <PhotoPicker files={[]} onChange={(files) => void sendPhotos(job.id, files)} />
      </section>
    </div>
  )
}

function Point({ x, y, label, title }: { x: number; y: number; label: string; title: string }) {
  return (
    <span className={styles.point} style={{ left: `${100 * x}%`, top: `${100 * y}%` }} title={title}>
      {label}
    </span>
  )
}
