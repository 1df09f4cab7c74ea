import { TRAY_TITLES, TRAYS } from '@treadle/contract'
import { hidingPlace } from '@treadle/core'
import { Button, FileButton, Group, SegmentedControl, Textarea, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconCamera, IconPhoto } from '@tabler/icons-react'
import { useRef, useState } from 'react'
import { Figure } from '../../parts/Figure.tsx'
import { sentenceOf } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import parts from '../../parts/parts.module.css'
import { sendPhoto } from '../../job/PhotoPicker.tsx'
import { useCamera } from '../../parts/useCamera.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Strip.module.css'
import type { StripLog } from '../../job/useStripLog.ts'

type Tray = (typeof TRAYS)[number]

/** The step that is being made: say what comes off, press, and its picture is taken and the next one begins. */
export function NextStep({ log, active }: { log: StripLog; active: boolean }) {
  const { job, clock } = useJobData()
  const { video: cameraPicture, state: cameraState, start: startCamera, take: takePicture } = useCamera()
  const trays = TRAYS.filter((t) => t === 'case' || clock.trains.some((train) => train.train === t))
  const blank = { part: '', screws: '', marks: '', remark: '', count: 1 }
  const [tray, setTray] = useState<Tray>('case')
  const [draft, setDraft] = useState(blank)
  const [photo, setPhoto] = useState<File | null>(null)
  const partField = useRef<HTMLInputElement>(null)
  const set = (part: Partial<typeof blank>) => setDraft({ ...draft, ...part })
  const number = log.steps.length + 1
  const hint = hidingPlace(draft.part)

  const keep = () => {
    const said = draft.part.trim() || `Step ${number}`
    let takenBack = false
    let undo: (() => void) | null = null
    const picture = photo ? Promise.resolve<Blob | null>(photo) : takePicture()
    // The step is kept even when its picture is not: what came out matters more.
    void picture
      .then((blob) => (blob ? sendPhoto(job.id, blob, said) : null))
      .catch((error: unknown) => {
        notifications.show({ color: 'red', title: 'The picture was not kept', message: sentenceOf(error) })
        return null
      })
      .then((photoId) => {
        if (!takenBack) undo = log.add({ ...draft, part: said, tray, photoId })
      })
    setDraft(blank)
    setPhoto(null)
    return () => {
      takenBack = true
      undo?.()
    }
  }
  usePedalAction(
    active
      ? {
          label: cameraState === 'live' ? `Press for the picture of step ${number}` : `Press to keep step ${number}`,
          hint: draft.part || 'then the next begins',
          press: keep,
        }
      : null,
  )
  return (
    <>
      <h2>Step {number}</h2>
      <div className={styles.making}>
        <div>
          <TextInput
            ref={partField}
            label="What comes off"
            value={draft.part}
            maxLength={120}
            onChange={(e) => set({ part: e.currentTarget.value })}
            onKeyDown={(e) => {
              if (e.key !== 'Enter') return
              keep()
              partField.current?.focus()
            }}
          />
          {hint !== null && (
            <p className={styles.hint} role="status">
              {hint}
            </p>
          )}
          <div className={styles.tray}>
            <span id="tray">Into which tray</span>
            <SegmentedControl
              aria-labelledby="tray"
              value={tray}
              onChange={setTray}
              data={trays.map((t) => ({ value: t, label: TRAY_TITLES[t] }))}
            />
          </div>
          <div className={parts.fields}>
            <Figure
              label="Parts out"
              draftOf="next"
              description="screws counted too"
              value={draft.count}
              min={1}
              max={200}
              whole
              onKeep={(v) => set({ count: v ?? 1 })}
            />
            <TextInput
              label="Screws and their holes"
              description="2 long, upper holes"
              value={draft.screws}
              maxLength={200}
              onChange={(e) => set({ screws: e.currentTarget.value })}
            />
            <TextInput
              label="Marks"
              description="dot to dot"
              value={draft.marks}
              maxLength={200}
              onChange={(e) => set({ marks: e.currentTarget.value })}
            />
          </div>
          <Textarea
            label="Remark"
            autosize
            value={draft.remark}
            onChange={(e) => set({ remark: e.currentTarget.value })}
          />
          <Group mt="sm">
            <Button onClick={() => void keep()}>Keep this step</Button>
            <FileButton accept="image/jpeg,image/png,image/webp" onChange={setPhoto}>
              {(props) => (
                <Button variant="default" leftSection={<IconPhoto size={20} />} {...props}>
                  {photo ? photo.name.slice(0, 24) : 'Picture from a file'}
                </Button>
              )}
            </FileButton>
            {log.undoable !== null && (
              <Button variant="subtle" onClick={log.undo}>
                Undo: {log.undoable}
              </Button>
            )}
          </Group>
        </div>
        <div className={styles.camera}>
          {cameraState === 'live' ? (
            <video ref={cameraPicture} autoPlay muted playsInline aria-label="The camera’s picture" />
          ) : (
            <button type="button" className={styles.cameraOff} onClick={startCamera}>
              <IconCamera size={36} />
              <span>{cameraState === 'none' ? 'No camera here. Steps are kept without.' : 'Switch the camera on'}</span>
            </button>
          )}
        </div>
      </div>
    </>
  )
}
