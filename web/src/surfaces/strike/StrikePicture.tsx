import {
  countWheelRim,
  DRUM_PHRASES,
  phraseAt,
  snailEdge,
  STRIKE_KIND_FACTS,
  timeInWords,
  WARNING_RATIO,
  type FlatPoint,
  type Pose,
  type Standing,
  type StrikeSetUp,
  type StrikeTime,
} from '@treadle/core'
import { useMemo, type ReactNode } from 'react'
import styles from './Strike.module.css'

interface Drawn {
  setUp: StrikeSetUp
  pose: Pose
  time: StrikeTime
  /** the part that stands wrong */
  fault: keyof Standing | null
}

/** The strike as it stands at a moment: hands, lift, lock, warning, hammer, and what counts. */
export function StrikePicture(drawn: Drawn) {
  const { setUp, pose, time, fault } = drawn
  const { counts, quarters } = STRIKE_KIND_FACTS[setUp.kind]
  const more = quarters === 'chime' || quarters === 'bird'
  const bird = setUp.kind === 'bird-two' || setUp.kind === 'bird-three'
  const label = `The strike at ${timeInWords(time)}: ${pose.locked ? 'locked' : pose.held ? 'held at the warning' : 'running'}, ${pose.blows} blows and ${pose.quarters} quarters struck`
  return (
    <svg viewBox={`0 0 240 ${more ? 166 : 114}`} className={styles.picture} role="img" aria-label={label}>
      <Hands {...drawn} />
      <Lift {...drawn} />
      {counts === 'count wheel' ? <CountWheel {...drawn} /> : <RackAndSnail {...drawn} />}
      <Lock pose={pose} />
      <Warning pose={pose} wrong={fault === 'warningDeg'} />
      <Hammer pose={pose} wrong={fault === 'hammerShare'} bird={bird} />
      {more && <Quarters {...drawn} />}
    </svg>
  )
}

/** A part at its place, with its name beneath. */
function Part({
  x,
  y,
  name,
  wrong = false,
  below,
  children,
}: {
  x: number
  y: number
  name: string
  wrong?: boolean
  below: number
  children: ReactNode
}) {
  return (
    <g transform={`translate(${x} ${y})`} className={wrong ? styles.wrong : undefined}>
      {children}
      <text y={below} textAnchor="middle" className={styles.partName}>
        {name}
        {wrong && ', stands wrong'}
      </text>
    </g>
  )
}

const turned = (deg: number) => ({ transform: `rotate(${deg}deg)` })
const moved = (x: number, y: number) => ({ transform: `translate(${x}px, ${y}px)` })
const pathOf = (points: FlatPoint[]) => `M${points.map((p) => `${p.xMm.toFixed(2)} ${(-p.yMm).toFixed(2)}`).join('L')}Z`

function Hands({ pose, time, fault }: Drawn) {
  const past = time.quarter * 15 + pose.minute
  const minuteDeg = past * 6
  const hourDeg = time.hour * 30 + past / 2
  return (
    <Part x={28} y={27} name="hands" below={30} wrong={fault === 'handMinutes'}>
      <circle r="24" className={styles.dial} />
      {Array.from({ length: 12 }, (_, i) => (
        <path
          key={i}
          d={i % 3 === 0 ? 'M0 -23V-19.500' : 'M0 -23V-21.500'}
          transform={`rotate(${i * 30})`}
          className={styles.thin}
        />
      ))}
      <path d="M0 3V-12" className={styles.hand} style={turned(hourDeg)} />
      <path d="M0 4V-20" className={styles.minuteHand} style={turned(minuteDeg)} />
      <circle r="1.6" className={styles.solid} />
    </Part>
  )
}

/** The lifting piece, as high as its pin lifts it; the marks are where it unlocks, and where a high lift reaches. */
function Lift({ pose, fault }: Drawn) {
  const wrong = fault === 'halfLift' || fault === 'hourLift' || fault === 'quarterLift'
  return (
    <Part x={32} y={78} name="lift" below={31} wrong={wrong}>
      <path d="M-9 24V-12" className={styles.thin} />
      <path d="M-11 10H-7M-11 -1H-7" className={styles.thin} />
      <text x="-13" y="11" textAnchor="end" className={styles.tiny}>
        frees
      </text>
      <text x="-13" y="0" textAnchor="end" className={styles.tiny}>
        high
      </text>
      <g style={moved(0, -24 * pose.lift)} className={styles.moves}>
        <path d="M-8 22H14L18 19" className={styles.lever} />
      </g>
    </Part>
  )
}

/** The count wheel with its true slots, its detent in one, on the rim, or held up. */
function CountWheel({ setUp, pose, fault }: Drawn) {
  const halves = setUp.halves === 'one' ? 'one' : 'none'
  const divisions = halves === 'one' ? 90 : 78
  const rim = useMemo(() => pathOf(countWheelRim(halves, { outsideMm: 60, slotDeepMm: 4, slotWideMm: 1.7 })), [halves])
  const deg = (-360 * (pose.count + setUp.stands.countOff)) / divisions
  const detent = pose.hookUp ? -5 : pose.inSlot ? 3.2 : 0
  return (
    <Part
      x={94}
      y={64}
      name={setUp.kind === 'count-inside' ? 'count wheel, between the plates' : 'count wheel'}
      below={40}
      wrong={fault === 'countOff' || fault === 'outOfStep'}
    >
      <g style={turned(deg)} className={styles.moves}>
        <path d={rim} className={styles.wheel} />
        <path d="M0 -22V22M-22 0H22" className={styles.thin} />
      </g>
      <circle r="3" className={styles.solid} />
      <g style={moved(0, detent)} className={styles.moves}>
        <path d="M40 -36H0V-31" className={styles.lever} />
      </g>
    </Part>
  )
}

const TOOTH = 2.1
const SNAIL_HIGH = 29

/** Rack and snail: the rack fallen by its teeth until its tail is on the step of the hour; the pallet gathers them. */
function RackAndSnail({ setUp, pose, time, fault }: Drawn) {
  const edge = useMemo(() => pathOf(snailEdge({ highMm: SNAIL_HIGH, stepMm: TOOTH, boreMm: 5 })), [])
  const { snailOff, rackOff, rackStretch } = setUp.stands
  const shown = setUp.kind === 'ting-tang' && time.quarter !== 0 ? time.quarter : time.hour
  // The tail, as far down as it comes on its step once the teeth have fallen that the model lets fall.
  const tailAtRest = 26 - SNAIL_HIGH - TOOTH * (1 + rackOff + rackStretch * shown)
  const drop = pose.rack * TOOTH
  const deg = 30 * (shown + snailOff)
  const pallet = pose.palletDeg
  return (
    <>
      <Part x={86} y={72} name="snail" below={36} wrong={fault === 'snailOff'}>
        <g style={turned(deg)} className={styles.moves}>
          <path d={edge} className={styles.wheel} />
        </g>
        <circle r="2.5" className={styles.solid} />
      </Part>
      <Part x={126} y={46} name="rack" below={62} wrong={fault === 'rackOff' || fault === 'rackStretch'}>
        <g style={moved(0, drop)} className={styles.moves}>
          <path d={`M0 -30V${16}`} className={styles.lever} />
          <path
            d={Array.from(
              { length: 14 },
              (_, i) => `M0 ${-29 + i * TOOTH}l3.4 ${TOOTH * 0.25}l-3.4 ${TOOTH * 0.75}`,
            ).join('')}
            className={styles.thin}
          />
          <path d={`M0 4H-40V${tailAtRest}`} className={styles.lever} />
        </g>
        <g style={moved(pose.hookUp ? 4 : 0, pose.hookUp ? -4 : 0)} className={styles.moves}>
          <path d="M22 -32H6L4 -28" className={styles.lever} />
        </g>
      </Part>
      <Part x={144} y={40} name="pallet" below={13} wrong={fault === 'gatheringDeg'}>
        <circle r="4.500" className={styles.dial} />
        <g style={turned(pallet)} className={styles.moves}>
          <path d="M0 0L-9 -3M0 0L8 5" className={styles.lever} />
        </g>
      </Part>
    </>
  )
}

/** The locking wheel: its pin against the lock at rest. */
function Lock({ pose }: { pose: Pose }) {
  return (
    <Part x={168} y={84} name="locking wheel" below={22}>
      <circle r="16" className={styles.dial} />
      <g style={turned(360 * pose.lockTurns)} className={styles.moves}>
        <circle cy="-12.500" r="2" className={styles.pin} />
        <path d="M0 0V-9" className={styles.thin} />
      </g>
      <g style={moved(0, pose.locked ? 0 : -8)} className={styles.moves}>
        <path d="M-16 -21H2.600V-12" className={styles.lever} />
      </g>
    </Part>
  )
}

/** The warning wheel: how far its pin is from its lever at rest, and whether the lever holds it. */
function Warning({ pose, wrong }: { pose: Pose; wrong: boolean }) {
  const lifted = pose.lift > 0.2 && (pose.held || !pose.locked)
  const running = pose.lockTurns * WARNING_RATIO * 360
  const deg = pose.held ? 0 : pose.locked ? -pose.warningDeg : running - pose.warningDeg
  return (
    <Part x={214} y={84} name="warning wheel" below={22} wrong={wrong}>
      <circle r="13" className={styles.dial} />
      <g style={turned(deg)} className={styles.moves}>
        <circle cy="-10" r="1.800" className={styles.pin} />
        <path d="M0 0V-7" className={styles.thin} />
      </g>
      <g style={moved(0, lifted || pose.held ? 0 : 7)} className={styles.moves}>
        <path d="M20 -16H2V-9" className={styles.lever} />
      </g>
    </Part>
  )
}

function Hammer({ pose, wrong, bird }: { pose: Pose; wrong: boolean; bird: boolean }) {
  return (
    <Part x={206} y={26} name={bird ? 'gong, and the bird’s bellows' : 'hammer and bell'} below={23} wrong={wrong}>
      <path d="M14 8A12 12 0 0 1 14 -16" className={styles.bell} />
      <g style={turned(-34 * pose.hammer)} className={styles.moves}>
        <path d="M-10 14L7 -8" className={styles.lever} />
        <circle cx="8" cy="-9" r="3.400" className={styles.solid} />
        <path d="M-10 14L-22 10" className={styles.lever} />
      </g>
      {bird && (
        <g style={moved(pose.blows > 0 && !pose.locked ? -6 : 0, 0)} className={styles.moves}>
          <path d="M-34 -6q5 -6 10 0q-4 5 -10 0m10 0l4 -1" className={styles.thin} />
        </g>
      )}
      <text x="-2" y="-19" textAnchor="middle" className={styles.count}>
        {pose.blows}
      </text>
    </Part>
  )
}

/** What counts the quarters: the locking plate with its four slots, and of a chime the drum at its phrase. */
function Quarters({ setUp, pose, time, fault }: Drawn) {
  const chime = STRIKE_KIND_FACTS[setUp.kind].quarters === 'chime'
  const before = [6, 0, 1, 3][time.quarter] ?? 0
  const plate = -36 * (before + pose.quarters + setUp.stands.plateOff * 2)
  return (
    <>
      <Part x={46} y={140} name="quarters’ plate" below={23} wrong={fault === 'plateOff'}>
        <g style={turned(plate)} className={styles.moves}>
          <circle r="15" className={styles.wheel} />
          {[0, 1, 3, 6].map((n) => (
            <path key={n} d="M0 -15.500V-11" transform={`rotate(${36 * n})`} className={styles.slot} />
          ))}
        </g>
        <path d="M8 -22H0V-15" className={styles.lever} />
        <text y="2.500" textAnchor="middle" className={styles.count}>
          {pose.quarters}
        </text>
      </Part>
      {chime && (
        <Part x={104} y={140} name={`drum at phrase ${phraseAt(pose.drum)}`} below={23} wrong={fault === 'drumOff'}>
          <rect x="-13" y="-12" width="26" height="22" rx="2" className={styles.wheel} />
          {Array.from({ length: DRUM_PHRASES }, (_, i) => (
            <path
              key={i}
              d={`M-11 ${-9.5 + i * 4}H11`}
              className={i + 1 === phraseAt(pose.drum) ? styles.phraseNow : styles.thin}
            />
          ))}
        </Part>
      )}
    </>
  )
}
