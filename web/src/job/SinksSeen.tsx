import { WITNESS_STATE_TITLES, WITNESS_TITLES, type WitnessListed } from '@treadle/contract'
import { Button } from '@mantine/core'
import type { ReactNode } from 'react'
import { useOils, useWitnesses } from '../data/queries.ts'
import { Mark } from '../parts/Mark.tsx'
import styles from './SinksSeen.module.css'
import { dayLike } from '../parts/say.ts'

const STATES = { '': 'none', stays: 'sound', spread: 'watch', dry: 'must' } as const

/** All pictures of a clock’s sinks, of every visit, side by side: with which oil, how long after. */
export function SinksSeen({
  clockId,
  judge,
  onRemove,
}: {
  clockId: string
  /** how one is judged that may be; null: as it was judged */
  judge?: (witness: WitnessListed) => ReactNode
  onRemove?: (witness: WitnessListed) => (() => void) | null
}) {
  const { data: all } = useWitnesses(clockId)
  const { data: oils } = useOils()
  if (!all || all.length === 0) return null
  return (
    <ol className={styles.seen} aria-label="Pictures of the sinks">
      {all.map((w) => {
        const oil = oils?.find((o) => o.id === w.oilId)
        const remove = onRemove?.(w) ?? null
        return (
          <li key={w.id}>
            <a href={`/api/photos/${w.photoId}/screen`} target="_blank" rel="noreferrer">
              <img src={`/api/photos/${w.photoId}/thumb`} alt={`Sinks, ${w.side}, ${WITNESS_TITLES[w.moment]}`} />
            </a>
            <b>
              {w.side}, {WITNESS_TITLES[w.moment]}
            </b>
            <span className="quiet">
              Job {w.jobNumber}, {dayLike(w.takenAt, '27 Nov 2026')}
              {w.oiledAt !== null && `; ${after(w.oiledAt, w.takenAt)}`}
              {oil && `; ${oil.name}`}
            </span>
            {judge?.(w) ?? (
              <span>
                <Mark state={STATES[w.state]} label={WITNESS_STATE_TITLES[w.state]} /> the oil{' '}
                {WITNESS_STATE_TITLES[w.state]}
              </span>
            )}
            {remove && (
              <Button variant="subtle" size="compact-sm" onClick={remove}>
                Take it back
              </Button>
            )}
          </li>
        )
      })}
    </ol>
  )
}

const DAY_MS = 86_400_000

function after(oiledAt: string, takenAt: string): string {
  const days = Math.max(0, Math.floor((Date.parse(takenAt) - Date.parse(oiledAt)) / DAY_MS))
  if (days < 1) return 'the day it was oiled'
  return days < 60 ? `${days} days after oiling` : `${(days / 365.25).toFixed(1)} years after oiling`
}
