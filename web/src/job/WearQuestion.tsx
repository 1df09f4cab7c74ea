import type { Hole } from '@treadle/contract'
import { WEAR_QUESTIONS, wearQuestioned } from '@treadle/core'
import { Radio } from '@mantine/core'
import { Mark } from '../parts/Mark.tsx'
import parts from '../parts/parts.module.css'
import { useMovement } from './useMovement.ts'
import { useObservations, type Observations } from './useObservations.ts'

type Place = Pick<Hole, 'train' | 'arbor' | 'plate'>
type Worn = Pick<Hole, 'longAxisMm' | 'shortAxisMm' | 'wearDeg'>

const ANSWERS = [
  {
    value: 'off its centre',
    follows: 'It goes back to the distance that the counts ask for, where module and places tell it.',
  },
  { value: 'plate turned', follows: 'Set the plates out anew from the other side; the wear then turns with them.' },
  { value: 'wrong hole', follows: 'Find the right one on the plates, and measure it again.' },
  {
    value: 'none of these',
    follows: 'Then the wear goes as it was measured; look at what else presses on that arbor.',
  },
]

const keyOf = ({ train, arbor, plate }: Place) => `wear ${train} ${arbor} ${plate}`

/** Whether the hole is worn another way than the train pushes, and nobody has said why. */
export function useWearOpen(): (hole: Place & Worn) => boolean {
  const movement = useMovement()
  const seen = useObservations()
  return (hole) => questioned(movement?.expected(hole) ?? null, hole) && answerOf(seen, hole) === ''
}

/** The questions that wear across the train's forces asks, and what was answered; nothing where they agree. */
export function WearQuestion({ hole }: { hole: Place & Worn }) {
  const movement = useMovement()
  const seen = useObservations()
  if (!questioned(movement?.expected(hole) ?? null, hole)) return null
  const said = answerOf(seen, hole)
  const answer = ANSWERS.find((a) => a.value === said)
  return (
    <div className={parts.asked}>
      <p>
        <Mark state={answer ? 'sound' : 'watch'} label={answer ? 'answered' : 'ask'} /> It is worn another way than the
        train pushes. Before it is cut, ask: {WEAR_QUESTIONS.join(' ')}
      </p>
      <Radio.Group
        aria-label="Why it is worn another way"
        value={said}
        onChange={(value) => seen.set(keyOf(hole), { answer: value })}
      >
        {ANSWERS.map(({ value }) => (
          <Radio key={value} value={value} label={value} size="md" my="sm" />
        ))}
      </Radio.Group>
      {answer && <p>{answer.follows}</p>}
    </div>
  )
}

function questioned(expected: number | null, { longAxisMm, shortAxisMm, wearDeg }: Worn): boolean {
  if (expected === null || wearDeg === null || longAxisMm === null || shortAxisMm === null) return false
  return wearQuestioned(wearDeg, expected, longAxisMm - shortAxisMm)
}

function answerOf(seen: Observations, hole: Place): string {
  return seen.of(keyOf(hole))?.answer ?? ''
}
