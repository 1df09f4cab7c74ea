import { dialTime, STRIKE_KIND_FACTS, strikeTrips } from '@treadle/core'
import { useState } from 'react'
import { useJobData } from '../../job/useJobData.ts'
import { Figure } from '../../parts/Figure.tsx'
import { count } from '../../parts/say.ts'
import styles from './Hands.module.css'

/** What is done when it struck otherwise than the hands show: a count wheel is tripped, a rack puts itself right. */
export function OutOfStep({ shows }: { shows: number | null }) {
  const { clock } = useJobData()
  const [struck, setStruck] = useState<number | null>(null)
  const { strike, strikeWork } = clock.work
  const counts = strike ? STRIKE_KIND_FACTS[strike.kind].counts : strikeWork === 'rack' ? 'rack' : 'count wheel'
  const halves = strike?.halves === 'one' ? 'one' : 'none'
  const hour = shows === null ? null : Math.floor(shows / 60) || 12
  return (
    <>
      <h2>It struck otherwise</h2>
      <Figure
        label="What it struck last, blows"
        min={1}
        max={12}
        whole
        value={struck}
        onKeep={setStruck}
        draftOf="struck"
      />
      {struck !== null && hour === null && <p className="quiet">Say what it shows, and it tells what to do.</p>}
      {struck !== null && hour !== null && (
        <p className={styles.say} role="status">
          {struck === hour
            ? 'That is the hour that it shows: it is in step.'
            : counts === 'rack'
              ? `A rack counts by the hands: this puts itself right at the next hour, or at twelve. Wait for ${dialTime(60 * (hour + 1))} before touching it; if it is still wrong the hour hand sits wrong on its pipe: turn that alone to ${struck}, where it is a friction fit.`
              : trips(struck, hour, halves)}
        </p>
      )}
      {struck === 1 && halves === 'one' && (
        <p className="quiet">One blow may have been a half hour: let it strike once more before you count on it.</p>
      )}
    </>
  )
}

function trips(struck: number, hour: number, halves: 'none' | 'one'): string {
  const after = (h: number) => (h % 12) + 1
  const { trips: times, blows } = strikeTrips(after(struck), after(hour), halves)
  return `Trip it ${times === 1 ? 'once' : `${times} times`}, letting it finish each: ${count(blows, 'blow')}. Lift the detent by its wire, or the lever under the seat board; then it strikes ${after(hour)} next, as it should.`
}
