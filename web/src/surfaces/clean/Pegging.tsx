import { Checkbox } from '@mantine/core'
import { memo, useCallback } from 'react'
import { useJobData } from '../../job/useJobData.ts'
import parts from '../../parts/parts.module.css'
import { useLatest } from '../../parts/useLatest.ts'
import { pegKey, pegPlaces } from './pegging.ts'
import type { Observations } from '../../job/useObservations.ts'

/** After the bath: every hole pegged with wood until the peg comes out clean, and looked at. */
export function Pegging({ seen }: { seen: Observations }) {
  const { holes, job } = useJobData()
  const latest = useLatest(seen)
  const say = useCallback(
    (place: string, isClean: boolean) => latest.current.set(pegKey(place), { answer: isClean ? 'clean' : 'not yet' }),
    [latest],
  )
  if (job.partedAt === null) return null
  const places = pegPlaces(holes)
  const pegged = places.filter((p) => seen.of(pegKey(p))?.answer === 'clean').length
  return (
    <>
      <h2 className={parts.next}>Peg out and look</h2>
      <p className={parts.say}>
        Sharpened wood in each hole, turned and renewed until it comes out clean; then look through it at the light.
      </p>
      <p className="quiet">
        {pegged} of {places.length} done
      </p>
      <ul className={parts.list}>
        {places.map((place) => (
          <Place key={place} place={place} isClean={seen.of(pegKey(place))?.answer === 'clean'} onSay={say} />
        ))}
      </ul>
    </>
  )
}

/** One place; drawn anew only when it changed: there may be fifty, and a press changes one. */
const Place = memo(function Place({
  place,
  isClean,
  onSay,
}: {
  place: string
  isClean: boolean
  onSay: (place: string, isClean: boolean) => void
}) {
  return (
    <li>
      <Checkbox size="md" label={place} checked={isClean} onChange={(e) => onSay(place, e.currentTarget.checked)} />
    </li>
  )
})
