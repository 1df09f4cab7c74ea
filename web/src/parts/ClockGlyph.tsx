import type { ClockKind } from '@treadle/contract'

const OUTLINES: Record<ClockKind, string> = {
  wall: 'M12 3h16v34H12zM12 19h16',
  longcase: 'M13 2h14v11H13zM15 13l-2 22h14l-2-22',
  tower: 'M5 36h30M8 36V22h24v14M14 22v-8h12v8',
  shelf: 'M9 37V15L20 4l11 11v22zM6 37h28',
  mantel: 'M8 36V20a12 12 0 0 1 24 0v16zM5 36h30',
  bracket: 'M9 36V17q0-6 6-8 2-5 5-5t5 5q6 2 6 8v19zM6 36h28',
  other: 'M20 5a15 15 0 1 0 .01 0z',
}

const DIALS: Record<ClockKind, [number, number, number]> = {
  wall: [20, 11, 6],
  longcase: [20, 7.5, 4],
  tower: [20, 29, 5],
  shelf: [20, 21, 7],
  mantel: [20, 21, 7.5],
  bracket: [20, 21, 7],
  other: [20, 20, 9],
}

/** A small outline of the kind of clock. */
export function ClockGlyph({ kind }: { kind: ClockKind }) {
  const [x, y, r] = DIALS[kind]
  return (
    <svg viewBox="0 0 40 40" width="40" height="40" aria-hidden="true" style={{ flex: 'none', color: 'var(--quiet)' }}>
      <g fill="none" stroke="currentColor" strokeWidth="1.5">
        <path d={OUTLINES[kind]} />
        <circle cx={x} cy={y} r={r} />
        <path d={`M${x} ${y}v${-r * 0.7}M${x} ${y}l${r * 0.5} ${r * 0.3}`} />
        {kind === 'wall' && <path d="M20 19v10m-3 3a3 3 0 1 0 6 0 3 3 0 1 0-6 0" />}
        {kind === 'longcase' && <path d="M20 13v13m-2.5 2.5a2.5 2.5 0 1 0 5 0 2.5 2.5 0 1 0-5 0" />}
      </g>
    </svg>
  )
}
