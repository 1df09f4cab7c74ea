import { SHAPE_FROM_MS, SHAPE_STEP_MS, soundTells, type Side, type SideSound, type SoundHint } from '@treadle/core'
import styles from './Deeper.module.css'

const WIDTH = 460
const HEIGHT = 78
const FOOT = 60

/** What both sides' ticks are made of, each drawn over time, with an earlier visit behind it where there is one. */
export function KnocksPicture({
  sides,
  before,
  firstSide,
}: {
  sides: [SideSound, SideSound]
  before: [SideSound, SideSound] | null
  firstSide: Side | null
}) {
  const hints = soundTells(sides, before)
  return (
    <div>
      <h3>What a tick is made of</h3>
      {sides.map((side, i) => (
        <OneSide key={i} side={side} before={before?.[i] ?? null} name={nameOf(i === 0 ? 0 : 1, firstSide)} />
      ))}
      {hints.length === 0 ? (
        <p className="quiet">
          Both drops are about as loud, and neither comes in two{before ? '; no more rustle than the last time' : ''}.
        </p>
      ) : (
        <ul>
          {hints.map((hint) => (
            <li key={`${hint.kind} ${hint.side}`}>{inWords(hint, firstSide)}</li>
          ))}
        </ul>
      )}
    </div>
  )
}

function nameOf(side: 0 | 1, first: Side | null): string {
  if (first === null) return side === 0 ? 'One side' : 'The other'
  const isFirst = side === 0
  return (first === 'right') === isFirst ? 'Right' : 'Left'
}

function inWords({ kind, side, by, sure }: SoundHint, first: Side | null): string {
  const which =
    first === null ? (side === 0 ? 'one side' : 'the other side') : `the ${nameOf(side, first).toLowerCase()}`
  const often = sure === 'likely' ? 'Likely' : 'Perhaps'
  if (kind === 'loud drop')
    return `${often}: the drop on ${which} is ${by.toFixed(0)} dB louder, so it falls farther there: energy that never reaches the pendulum. That pallet may be too shallow.`
  if (kind === 'double drop')
    return `${often}: the drop on ${which} comes in two, ${by.toFixed(1)} ms apart: a tooth that slides before it locks, or a loose pallet or crutch.`
  return `${often}: on ${which} it rustles ${by.toFixed(0)} dB more between the knocks than the last time: dirt, or dry faces.`
}

function OneSide({ side, before, name }: { side: SideSound; before: SideSound | null; name: string }) {
  const toX = (ms: number) => 70 + ((ms - SHAPE_FROM_MS) / (SHAPE_STEP_MS * (side.shape.length - 1))) * (WIDTH - 80)
  const path = (shape: number[]) =>
    shape
      .map(
        (v, i) =>
          `${i === 0 ? 'M' : 'L'}${toX(SHAPE_FROM_MS + i * SHAPE_STEP_MS).toFixed(1)} ${(FOOT - 52 * Math.sqrt(v)).toFixed(1)}`,
      )
      .join('')
  const words = side.knocks.map((k) =>
    k.ms === 0
      ? 'the drop'
      : `${k.ms > 0 ? '+' : '−'}${Math.abs(k.ms).toFixed(1)} ms at ${Math.round(100 * k.share)} %`,
  )
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={styles.knocks}
      role="img"
      aria-label={`${name}: ${words.join(', ')}`}
    >
      <text x={0} y={26} className={styles.sideName}>
        {name}
      </text>
      <text x={0} y={44} className={styles.hubQuiet}>
        {side.loudnessDb.toFixed(0)} dB
      </text>
      <line x1={70} x2={WIDTH - 10} y1={FOOT} y2={FOOT} className={styles.rim} />
      {before && <path d={path(before.shape)} className={styles.shapeBefore} />}
      <path d={path(side.shape)} className={styles.shape} />
      {side.knocks.map((k) => (
        <g key={k.ms}>
          <line x1={toX(k.ms)} x2={toX(k.ms)} y1={FOOT} y2={FOOT + 5} className={styles.rim} />
          <text x={toX(k.ms)} y={HEIGHT - 2} textAnchor="middle" className={styles.hubQuiet}>
            {k.ms === 0 ? 'drop' : `${k.ms > 0 ? '+' : '−'}${Math.abs(k.ms).toFixed(1)}`}
          </text>
        </g>
      ))}
    </svg>
  )
}
