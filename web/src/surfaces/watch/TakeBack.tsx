import type { WatchRow } from '@treadle/contract'
import { Button, Group } from '@mantine/core'
import { useState } from 'react'

/** A watch that was begun by mistake is taken back, with its minutes and sounds, once that was said twice. */
export function TakeBack({ watch, onRemove }: { watch: WatchRow; onRemove: (id: string) => void }) {
  const [asked, setAsked] = useState(false)
  return asked ? (
    <Group mt="md">
      <span>Its minutes and its sounds go with it.</span>
      <Button variant="default" color="red" onClick={() => onRemove(watch.id)}>
        Take it back
      </Button>
      <Button variant="subtle" onClick={() => setAsked(false)}>
        Keep it
      </Button>
    </Group>
  ) : (
    <Button mt="md" variant="subtle" onClick={() => setAsked(true)}>
      This watch was begun by mistake
    </Button>
  )
}
