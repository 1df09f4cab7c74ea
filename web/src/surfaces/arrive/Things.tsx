import { PART_STATES, USUAL_THINGS, type CameWith } from '@treadle/contract'
import { Button, FileButton, Group, NativeSelect, TextInput } from '@mantine/core'
import { IconCamera } from '@tabler/icons-react'
import { useState } from 'react'
import { sayNotKept } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import { sendPhoto } from '../../job/PhotoPicker.tsx'
import styles from './Arrive.module.css'

const STATES = { present: 'sound', damaged: 'watch', missing: 'must' } as const

/** What came with the clock, by what is usual for its kind: here, damaged or missing, each with a photo if wanted. */
export function Things({ onSave }: { onSave: (cameWith: CameWith[]) => void }) {
  const { job, clock } = useJobData()
  const [other, setOther] = useState('')
  const usual = USUAL_THINGS[clock.kind].filter((name) => !job.cameWith.some((c) => c.name === name))
  const add = (name: string) => {
    if (name.trim() === '' || job.cameWith.some((c) => c.name === name.trim())) return
    onSave([...job.cameWith, { name: name.trim(), state: 'present', returned: false }])
    setOther('')
  }
  const set = (at: number, part: Partial<CameWith>) =>
    onSave(job.cameWith.map((c, i) => (i === at ? { ...c, ...part } : c)))
  const photograph = (at: number, file: File | null) => {
    const thing = job.cameWith[at]
    if (!file || !thing) return
    sendPhoto(job.id, file, thing.name).then((photoId) => set(at, { photoId }), sayNotKept)
  }
  return (
    <>
      <ul className={styles.things}>
        {job.cameWith.map((thing, i) => (
          <li key={thing.name}>
            <Mark state={STATES[thing.state]} label={thing.state} />
            <span className={styles.thing}>{thing.name}</span>
            {/weight/.test(thing.name) && (
              <>
                <HungField thing={thing} onKeep={(hung) => set(i, { hung })} />
                <div className={styles.mass}>
                  <Figure
                    label={`Mass of the ${thing.name}`}
                    unit="kg"
                    value={thing.massKg ?? null}
                    min={0.001}
                    max={2000}
                    onKeep={(massKg) => set(i, { massKg })}
                  />
                </div>
              </>
            )}
            {thing.photoId != null && <img src={`/api/photos/${thing.photoId}/thumb`} alt={`Photo: ${thing.name}`} />}
            <FileButton accept="image/jpeg,image/png,image/webp" onChange={(file) => photograph(i, file)}>
              {(props) => (
                <Button variant="subtle" size="sm" aria-label={`Photo of ${thing.name}`} {...props}>
                  <IconCamera size={20} />
                </Button>
              )}
            </FileButton>
            <NativeSelect
              aria-label={`State of ${thing.name}`}
              size="sm"
              w="8rem"
              value={thing.state}
              data={[...PART_STATES]}
              onChange={(e) => set(i, { state: e.currentTarget.value as CameWith['state'] })}
            />
          </li>
        ))}
        {job.cameWith.length === 0 && <li className="quiet">Nothing was written down.</li>}
      </ul>
      <Group gap="xs">
        {usual.map((name) => (
          <Button key={name} variant="subtle" size="compact-md" onClick={() => add(name)}>
            + {name}
          </Button>
        ))}
      </Group>
      <TextInput
        label="Something else that came"
        value={other}
        maxLength={80}
        onChange={(e) => setOther(e.currentTarget.value)}
        onKeyDown={(e) => e.key === 'Enter' && add(other)}
        maw="20rem"
      />
    </>
  )
}

function HungField({ thing, onKeep }: { thing: CameWith; onKeep: (hung: string) => void }) {
  const [hung, setHung] = useState(thing.hung ?? '')
  return (
    <TextInput
      aria-label={`Where the ${thing.name} hung`}
      placeholder="hung left"
      size="sm"
      w="7.5rem"
      maxLength={60}
      value={hung}
      onChange={(e) => setHung(e.currentTarget.value)}
      onBlur={() => hung !== (thing.hung ?? '') && onKeep(hung)}
    />
  )
}
