import type { TrainSheetChange } from '@treadle/contract'
import { FieldError, missingCounts, type TrainCandidate } from '@treadle/core'
import { Button } from '@mantine/core'
import { useMemo, useState } from 'react'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import styles from './Trains.module.css'

const SHOWN = 8

/** Proposes counts for what is lost between the hourly arbor and the escape wheel, from the beat it has to make. */
export function LostCount({
  draft,
  heard,
  onTake,
}: {
  draft: TrainSheetChange
  heard: number | null
  onTake: (arbors: TrainSheetChange['arbors']) => void
}) {
  const [beats, setBeats] = useState<number | null>(null)
  const from = draft.hourly
  const upper = from === null ? [] : draft.arbors.slice(from)
  const wheels = upper.slice(0, -1).map((a) => a.wheel)
  const pinions = upper.slice(1).map((a) => a.pinion)
  const escape = upper.at(-1)?.wheel ?? null
  const lost = [...wheels, ...pinions, escape].filter((n) => n === null).length
  const aim = beats ?? heard
  const found = useMemo(
    () => (draft.escape && from !== null && aim !== null && lost > 0 ? search(wheels, pinions, escape, aim) : []),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the lists are made anew each time; their counts are what matters
    [JSON.stringify([wheels, pinions, escape, aim, draft.escape, from])],
  )
  if (!draft.escape || from === null || lost === 0) return null
  const take = (candidate: TrainCandidate) =>
    onTake(
      draft.arbors.map((a, i) => {
        const k = i - from
        if (k < 0) return a
        const last = i === draft.arbors.length - 1
        return {
          ...a,
          wheel: last ? candidate.escapeTeeth : (candidate.wheels[k] ?? a.wheel),
          pinion: k > 0 ? (candidate.pinions[k - 1] ?? a.pinion) : a.pinion,
        }
      }),
    )
  return (
    <section className={parts.next}>
      <h2>A count is missing</h2>
      <Figure label="Beats an hour it has to make" value={aim} min={600} max={40_000} onKeep={setBeats} />
      {found instanceof FieldError ? (
        <p className="quiet">{found.allowed[0]?.toUpperCase() + found.allowed.slice(1)}.</p>
      ) : aim === null ? (
        <p className="quiet">Hear it, or say what it has to beat.</p>
      ) : found.length === 0 ? (
        <p className="quiet">No usual counts make that beat within half a per cent.</p>
      ) : (
        <ul className={parts.list}>
          {found.slice(0, SHOWN).map((c) => (
            <li key={JSON.stringify(c)}>
              <span className={parts.grow}>
                {c.wheels.map((w, i) => `${w}/${c.pinions[i] ?? ''}`).join(', ')}, escape {c.escapeTeeth}
                <span className="quiet">
                  {' '}
                  {c.offPercent === 0
                    ? 'exactly'
                    : `${Math.abs(c.offPercent).toFixed(3)} % ${c.offPercent > 0 ? 'fast' : 'slow'}`}
                </span>
              </span>
              <Button variant="default" size="sm" onClick={() => take(c)}>
                Take these
              </Button>
            </li>
          ))}
          {found.length > SHOWN && (
            <li className={styles.more}>and {found.length - SHOWN} more, further off or less plain</li>
          )}
        </ul>
      )}
    </section>
  )
}

function search(
  wheels: (number | null)[],
  pinions: (number | null)[],
  escape: number | null,
  beats: number,
): TrainCandidate[] | FieldError {
  try {
    return missingCounts(wheels, pinions, escape, beats)
  } catch (error) {
    if (error instanceof FieldError) return error
    throw error
  }
}
