import { TRAY_TITLES, type StripStepRow } from '@treadle/contract'
import { Button, Group, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { Camera } from '../../parts/useCamera.ts'
import styles from './Assemble.module.css'
import { GhostPicture, type Clearness } from './GhostPicture.tsx'

/** A part that goes in next: from which tray, with which screws, at which marks, as its picture shows it. */
export function NextPart({
  step,
  camera,
  clear,
  marks,
  onNotBack,
}: {
  step: StripStepRow
  camera: Camera
  clear: Clearness
  marks: string[]
  onNotBack: (why: string) => void
}) {
  const [why, setWhy] = useState<string | null>(null)
  return (
    <>
      <h2 className={styles.nextPart}>
        {step.part}
        {step.count > 1 && `, ${step.count} parts in all`}
      </h2>
      <p className={styles.how}>
        {[`From the ${TRAY_TITLES[step.tray].toLowerCase()}`, step.screws, step.remark].filter(Boolean).join('; ')}.
      </p>
      {(step.marks !== '' || marks.length > 0) && (
        <ul className={styles.marks} aria-label="Marks that matter here">
          {step.marks !== '' && <li>{step.marks}</li>}
          {marks.map((m) => (
            <li key={m}>{m}</li>
          ))}
        </ul>
      )}
      {step.photoId !== null && <GhostPicture photoId={step.photoId} part={step.part} camera={camera} clear={clear} />}
      {why === null ? (
        <Button variant="subtle" size="sm" mt="sm" onClick={() => setWhy(step.notBack)}>
          It does not go back…
        </Button>
      ) : (
        <Group mt="sm" align="end">
          <TextInput
            label="Why it does not go back"
            description="broken, replaced by another, not its own"
            value={why}
            maxLength={300}
            data-autofocus
            autoFocus
            onChange={(e) => setWhy(e.currentTarget.value)}
            onKeyDown={(e) => e.key === 'Enter' && why.trim().length >= 4 && onNotBack(why.trim())}
            w="22rem"
          />
          <Button disabled={why.trim().length < 4} onClick={() => onNotBack(why.trim())}>
            Leave it out
          </Button>
          <Button variant="default" onClick={() => setWhy(null)}>
            Back
          </Button>
        </Group>
      )}
    </>
  )
}
