import { dialMinutes } from '@treadle/core'
import { Button, Group, Textarea, TextInput } from '@mantine/core'
import { useState } from 'react'
import parts from '../../parts/parts.module.css'

/** It has stopped: what its dial shows, as it is found and started again. */
export function Stopped({
  onKeep,
  onLeave,
}: {
  onKeep: (part: { showed: string; note: string }) => void
  onLeave: () => void
}) {
  const [showed, setShowed] = useState('')
  const [note, setNote] = useState('')
  const typed = showed.trim().replace('.', ':')
  const wrong = typed !== '' && dialMinutes(typed) === null
  const keep = () => !wrong && onKeep({ showed: typed, note: note.trim() })
  return (
    <form
      className={parts.asked}
      onSubmit={(e) => {
        e.preventDefault()
        keep()
      }}
    >
      <h3>It has stopped</h3>
      <p>Before the hands are moved: what does its dial show? It tells at which turn of which wheel it stopped.</p>
      <Group align="start">
        <TextInput
          label="The dial shows"
          placeholder="3:47"
          value={showed}
          maxLength={5}
          autoFocus
          error={wrong ? 'The dial shows: a time on the dial, such as 3:47' : undefined}
          onChange={(e) => setShowed(e.currentTarget.value)}
        />
        <Textarea
          label="What was seen"
          autosize
          value={note}
          maxLength={500}
          onChange={(e) => setNote(e.currentTarget.value)}
          w="20rem"
        />
      </Group>
      <Group mt="sm">
        <Button type="submit" disabled={wrong}>
          It stopped, and is started again
        </Button>
        <Button variant="default" onClick={onLeave}>
          It has not
        </Button>
      </Group>
      <p className="quiet">Its trial counts anew from now.</p>
    </form>
  )
}
