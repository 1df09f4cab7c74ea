import { arcTrend, practiceLike, type AngleBy, type ArcTrend, type FilmSwing, type Place } from '@treadle/core'
import { Button, FileButton } from '@mantine/core'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useClockChange } from '../../job/useClockChange.ts'
import { useJobData } from '../../job/useJobData.ts'
import parts from '../../parts/parts.module.css'
import { useLatest } from '../../parts/useLatest.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { PracticeFilm, VideoFilm, type Film } from '../../see/film.ts'
import { HELD_S } from '../../see/held.ts'
import { DropPoints } from './DropPoints.tsx'
import { KeepRunDown } from './KeepRunDown.tsx'
import { Overlay } from './Overlay.tsx'
import { useSwing } from '../../see/useSwing.ts'
import { useScale } from './useScale.ts'
import { ScaleFields } from './ScaleFields.tsx'
import seeStyles from '../../see/See.module.css'
import styles from './Swing.module.css'

const BY_WORDS: Record<AngleBy, string> = {
  rod: 'by the line of its rod',
  path: 'by the arc that the bob moves on',
  suspension: 'from where it hangs',
}
/** Fewer pictures of a full swing than this draw it with corners. */
const LEAST_A_SWING = 10

/** The swing seen by a camera or in a film: its semi-arc, its middle, its beats; nothing of the picture leaves the page. */
export function SwingSurface() {
  const { clock } = useJobData()
  const { pendulum } = clock
  const saveClock = useClockChange(clock)
  const now = useLatest({ saveClock, pendulum })
  const navigate = useNavigate()
  const canvas = useRef<HTMLCanvasElement>(null)
  const seen = useSwing()
  const scale = useScale(seen)
  const [film, setFilm] = useState<Film | null>(null)
  const [keptDeg, setKeptDeg] = useState<number | null>(null)
  const swing = seen.told?.swing ?? null
  const start = (next: Film) => {
    setKeptDeg(null)
    scale.clear()
    setFilm(next)
    if (canvas.current) seen.start(next, canvas.current)
  }
  const openCamera = () => start(new VideoFilm(null))
  const practise = () => start(new PracticeFilm(practiceLike(pendulum, 0.3)))
  const keep = (told: FilmSwing) => {
    const before = pendulum.semiArcDeg
    const semiArcDeg = Number(told.semiArcDeg.toFixed(2))
    setKeptDeg(semiArcDeg)
    saveClock({ pendulum: { ...pendulum, semiArcDeg } })
    return () => {
      setKeptDeg(null)
      // On the clock as it stands by then.
      now.current.saveClock({ pendulum: { ...now.current.pendulum, semiArcDeg: before } })
    }
  }
  const isKept = swing !== null && keptDeg !== null
  const trend = arcTrend(seen.arcs, HELD_S)
  usePedalAction(
    seen.led !== null
      ? null
      : seen.on === null
        ? { label: 'Press to open the camera', hint: 'before the pendulum, level', press: openCamera }
        : swing && !isKept
          ? { label: `Press to keep ${arc(swing)} as its semi-arc`, hint: BY_WORDS[swing.by], press: () => keep(swing) }
          : isKept
            ? { label: 'Press to go on to its beat', press: () => void navigate('../listen') }
            : { label: 'Press to close the picture', hint: seen.sentence, press: seen.stop },
  )
  const onTap = (place: Place) => scale.tap(place, seen.shownS())
  return (
    <div className={parts.columns}>
      <section>
        <div className={seeStyles.picture} data-on={seen.on !== null}>
          <canvas ref={canvas} width={360} height={270} aria-label="The pendulum" role="img" />
          <Overlay
            canvas={canvas}
            swing={seen.led === null ? swing : null}
            scale={scale}
            onTap={scale.asked === null ? null : onTap}
          />
        </div>
        <div className={styles.sources}>
          {seen.on === null ? (
            <>
              <Button size="lg" onClick={openCamera}>
                Camera
              </Button>
              <FileButton onChange={(file) => file && start(new VideoFilm(file))} accept="video/*">
                {(props) => (
                  <Button size="lg" variant="default" {...props}>
                    Film file
                  </Button>
                )}
              </FileButton>
              <Button size="lg" variant="default" onClick={practise}>
                Practice clock
              </Button>
            </>
          ) : (
            <Button size="lg" variant="default" onClick={seen.stop}>
              Close the picture
            </Button>
          )}
        </div>
      </section>
      <section>
        {seen.led !== null ? null : swing ? (
          <>
            <p className={styles.big} role="status">
              {arc(swing)} either way
            </p>
            <p>
              {BY_WORDS[swing.by]}; sure to ±{(2 * swing.standardError).toFixed(2)}°.{' '}
              {(7200 / swing.periodS).toFixed(0)} beats an hour by the pictures, ±
              {Math.ceil((2 * 7200 * swing.periodStandardError) / swing.periodS ** 2)}.
            </p>
            <p>
              The middle of its swing stands {Math.abs(swing.middleDeg).toFixed(2)}°{' '}
              {Math.abs(swing.middleDeg) < 0.05 ? '' : swing.middleDeg > 0 ? 'to the right ' : 'to the left '}of the
              picture’s vertical: plumb, as far as the camera stands level.
            </p>
            {seen.told && seen.told.framesPerS * swing.periodS < LEAST_A_SWING && (
              <p role="alert">
                Only {seen.told.framesPerS.toFixed(0)} pictures a second come: a faster camera, or a film, tells more.
              </p>
            )}
            {trend && <p>{slowly(trend)}</p>}
            {pendulum.semiArcDeg !== null && (
              <p className="quiet">Written down before: {pendulum.semiArcDeg.toFixed(2)}°.</p>
            )}
            <Button size="lg" disabled={isKept} onClick={() => keep(swing)}>
              {isKept ? 'Kept as its semi-arc' : 'Keep as its semi-arc'}
            </Button>
          </>
        ) : seen.on !== null ? (
          <p role="status">
            {seen.sentence === '' ? 'Looking for what swings…' : `Nothing told yet: ${seen.sentence}.`}
          </p>
        ) : seen.sentence !== '' ? (
          <p role="alert">{seen.sentence}</p>
        ) : (
          <p>
            Stand a camera before the pendulum, level and still, the bob and a good part of its rod in the picture, and
            let it swing. The semi-arc is measured instead of guessed; nothing of the picture leaves this page.
          </p>
        )}
        {swing && film?.kind === 'camera' && <KeepRunDown arcs={seen.arcs} semiArcDeg={pendulum.semiArcDeg} />}
        {swing && film && film.kind !== 'file' && seen.on !== null && <DropPoints seen={seen} film={film} />}
        {seen.led === null && <ScaleFields scale={scale} on={seen.on !== null} />}
      </section>
    </div>
  )
}

/** How the arc goes with time: it builds up after a start, and falls as the power does. */
function slowly({ perMinuteDeg, standardError, minutes }: ArcTrend): string {
  const over = minutes < 2 ? `${Math.round(60 * minutes)} s` : `${minutes.toFixed(0)} min`
  return Math.abs(perMinuteDeg) > 3 * standardError && Math.abs(perMinuteDeg) * minutes > 0.01
    ? `Over ${over} it ${perMinuteDeg > 0 ? 'grows' : 'falls'} by ${Math.abs(perMinuteDeg).toFixed(3)}° a minute: give it time to settle before it is kept.`
    : `Over ${over} it keeps, to ±${Math.max(0.01, 2 * standardError * minutes).toFixed(2)}°.`
}

function arc(swing: FilmSwing): string {
  return `${swing.semiArcDeg.toFixed(2)}°`
}
