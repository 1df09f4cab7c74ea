import type { EstimateRow } from '@treadle/contract'
import { Button, Group, SegmentedControl, Textarea, TextInput } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import SignaturePad from 'signature_pad'
import { useJobData } from '../../job/useJobData.ts'
import styles from './Estimate.module.css'

type Answer = NonNullable<EstimateRow['answer']>

/** How the owner answered: signed here, or a note of the call or the letter. */
export function AnswerForm({ onAnswer }: { onAnswer: (state: 'accepted' | 'declined', answer: Answer) => void }) {
  const { owner } = useJobData()
  const [how, setHow] = useState<Answer['how']>('signed')
  const [by, setBy] = useState(owner.name)
  const [note, setNote] = useState('')
  const canvas = useRef<HTMLCanvasElement>(null)
  const pad = useRef<SignaturePad | null>(null)
  useEffect(() => {
    if (how !== 'signed' || !canvas.current) return
    const made = new SignaturePad(canvas.current, { penColor: '#1b1d22', minWidth: 1, maxWidth: 2.4 })
    pad.current = made
    return () => made.off()
  }, [how])
  const answer = (state: 'accepted' | 'declined') =>
    onAnswer(state, {
      how,
      by: by.trim(),
      at: new Date().toISOString(),
      note,
      strokes: how === 'signed' ? strokesOf(pad.current) : [],
    })
  return (
    <div className={styles.answer}>
      <SegmentedControl
        aria-label="How the owner answered"
        value={how}
        onChange={setHow}
        data={[
          { value: 'signed', label: 'Signs here' },
          { value: 'call', label: 'On the telephone' },
          { value: 'letter', label: 'In writing' },
        ]}
      />
      <TextInput label="Who answered" value={by} onChange={(e) => setBy(e.currentTarget.value)} mt="sm" />
      {how === 'signed' ? (
        <>
          <canvas
            ref={canvas}
            width={520}
            height={150}
            className={styles.pad}
            aria-label="Sign here with finger, pen or mouse"
          />
          <Button variant="subtle" size="sm" onClick={() => pad.current?.clear()}>
            Clear the signature
          </Button>
        </>
      ) : (
        <Textarea
          label="What was agreed"
          autosize
          minRows={2}
          value={note}
          onChange={(e) => setNote(e.currentTarget.value)}
          mt="sm"
        />
      )}
      <Group mt="sm">
        <Button onClick={() => answer('accepted')}>Accepted</Button>
        <Button variant="default" onClick={() => answer('declined')}>
          Declined
        </Button>
      </Group>
    </div>
  )
}

function strokesOf(pad: SignaturePad | null): number[][][] {
  const round = (n: number) => Math.round(n * 10) / 10
  return (pad?.toData() ?? []).map((group) => group.points.map((p) => [round(p.x), round(p.y)]))
}
