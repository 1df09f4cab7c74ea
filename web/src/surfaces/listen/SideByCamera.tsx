import { practiceLike } from '@treadle/core'
import { Button } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import type { Listening } from '../../hear/useListening.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useLatest } from '../../parts/useLatest.ts'
import { PracticeFilm, VideoFilm } from '../../see/film.ts'
import { useSwing } from '../../see/useSwing.ts'
import seeStyles from '../../see/See.module.css'

/** As many right-hand ends as are told at once. */
const ENDS = 4

/** Which tick is right, seen: each time the camera sees the bob at its right-hand end stands for a press there. */
export function SideByCamera({ listening }: { listening: Listening }) {
  const { clock } = useJobData()
  const canvas = useRef<HTMLCanvasElement>(null)
  const seen = useSwing()
  const [wanted, setWanted] = useState(false)
  const practice = listening.heard?.pickup === 'practice'
  const told = listening.side.first
  const latest = useLatest({ listening, seen })
  const swing = seen.told?.swing
  useEffect(() => {
    const now = latest.current
    if (!swing || now.listening.side.first !== null) return
    for (const ms of rightEnds(swing.phaseS, swing.periodS, swing.path.findLast((p) => p !== null)?.atS ?? 0))
      now.listening.tap(now.seen.takenMs(ms))
  }, [swing, latest])
  useEffect(() => {
    if (told !== null) latest.current.seen.stop()
  }, [told, latest])
  if (told !== null) return seen.told && wanted ? <p role="status">The first tick is the {told} one.</p> : null
  return (
    <div>
      <Button
        variant="default"
        my="sm"
        onClick={() => {
          setWanted(true)
          if (canvas.current)
            seen.start(practice ? new PracticeFilm(practiceLike(clock.pendulum)) : new VideoFilm(null), canvas.current)
        }}
      >
        See which side, by the camera
      </Button>
      <div className={seeStyles.picture} hidden={seen.on === null}>
        <canvas ref={canvas} width={360} height={270} aria-label="The pendulum" role="img" />
      </div>
      {seen.sentence !== '' && (
        <p role="alert">{seen.on === null ? seen.sentence : `Nothing told yet by the picture: ${seen.sentence}.`}</p>
      )}
    </div>
  )
}

/** The latest moments at which the bob stood at its right-hand end, before `untilS`. */
function rightEnds(phaseS: number, periodS: number, untilS: number): number[] {
  const first = phaseS + periodS / 4
  const last = Math.floor((untilS - first) / periodS)
  return Array.from({ length: ENDS }, (_, i) => first + (last - i) * periodS)
}
