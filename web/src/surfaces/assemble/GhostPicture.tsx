import { Button, FileButton, Group, Slider } from '@mantine/core'
import { IconCamera, IconPhoto } from '@tabler/icons-react'
import { useEffect, useState } from 'react'
import type { Camera } from '../../parts/useCamera.ts'
import styles from './Assemble.module.css'

/** How clear the old picture lies over the new one: as it is set, and while the foot is held, alone. */
export interface Clearness {
  percent: number
  set: (percent: number) => void
  alone: boolean
}

/**
 * The picture from taking apart laid half clear over what the camera sees now, or over a still photo, so that a part is
 * put where it was: what does not line up is seen at once.
 */
export function GhostPicture({
  photoId,
  part,
  camera: { video, state, start },
  clear,
}: {
  photoId: string
  part: string
  camera: Camera
  clear: Clearness
}) {
  const [still, setStill] = useState<string | null>(null)
  useEffect(() => () => void (still && URL.revokeObjectURL(still)), [still])
  const live = state === 'live'
  const over = live || still !== null
  const shown = !over || clear.alone ? 100 : clear.percent
  return (
    <div>
      <div className={styles.ghost}>
        {live && <video ref={video} autoPlay muted playsInline aria-label="What the camera sees now" />}
        {!live && still !== null && <img src={still} alt="The part as it lies now" />}
        <img
          src={`/api/photos/${photoId}/screen`}
          alt={`As it came out: ${part}`}
          className={over ? styles.old : undefined}
          style={over ? { opacity: shown / 100 } : undefined}
        />
      </div>
      {over ? (
        <Group mt="xs" wrap="nowrap">
          <Slider
            thumbLabel="How clear the old picture is"
            className={styles.clear}
            value={clear.percent}
            onChange={clear.set}
            min={0}
            max={100}
            step={5}
            label={(v) => `${v} %`}
          />
          <span className="quiet">{clear.alone ? 'The old picture alone' : `Old picture ${clear.percent} %`}</span>
        </Group>
      ) : (
        <Group mt="xs">
          <Button variant="default" size="sm" leftSection={<IconCamera size={18} />} onClick={start}>
            {state === 'none' ? 'No camera here' : 'Lay it over the camera'}
          </Button>
          <FileButton
            accept="image/jpeg,image/png,image/webp"
            onChange={(file) => file && setStill(URL.createObjectURL(file))}
          >
            {(props) => (
              <Button variant="default" size="sm" leftSection={<IconPhoto size={18} />} {...props}>
                Over a photo
              </Button>
            )}
          </FileButton>
        </Group>
      )}
    </div>
  )
}
