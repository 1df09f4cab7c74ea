import { requireWithin } from '../check/require.ts'

export interface ArcTick {
  deg: number
  /** on the sheet, mm; x to the right of plumb, y below the scale's highest line */
  innerX: number
  innerY: number
  outerX: number
  outerY: number
  /** whole degrees are long and numbered, halves shorter, tenths short */
  size: 'whole' | 'half' | 'tenth'
}

export interface ArcScale {
  ticks: ArcTick[]
  /** size of the drawing, mm */
  widthMm: number
  heightMm: number
  /** the scale reaches so far either side of plumb, ° */
  reachDeg: number
}

const LONG = { whole: 9, half: 6, tenth: 3.5 }
/** Fits upright sheets of A4 with a margin. */
const MOST_WIDE_MM = 186

/**
 * A scale of the pendulum's arc at true size, for a pendulum `lengthMm` from suspension to tip.
 *
 * A mark at θ lies at L·sin θ from plumb and L·(1 − cos θ) above the middle, so the tip stands over it. It reaches
 * `wantedDeg` either side, or as far as a sheet of paper is wide.
 *
 * @param lengthMm - suspension to tip, 40 to 6000 mm
 * @param wantedDeg - 1 to 25 °
 */
export function arcScale(lengthMm: number, wantedDeg = 8): ArcScale {
  requireWithin('lengthMm', lengthMm, 40, 6000)
  requireWithin('wantedDeg', wantedDeg, 1, 25)
  const fits = (Math.asin(Math.min(1, MOST_WIDE_MM / 2 / lengthMm)) * 180) / Math.PI
  const reachDeg = Math.min(wantedDeg, Math.floor(fits * 2) / 2 || Math.floor(fits * 10) / 10)
  // A tenth of a degree on a short pendulum is finer than a printer's line: then only halves.
  const step = (lengthMm * Math.PI) / 1800 >= 0.8 ? 1 : 5
  const tenths = Math.round(reachDeg * 10)
  const ticks: ArcTick[] = []
  for (let n = -Math.floor(tenths / step) * step; n <= tenths; n += step) {
    const size = n % 10 === 0 ? 'whole' : n % 5 === 0 ? 'half' : 'tenth'
    const rad = ((n / 10) * Math.PI) / 180
    const at = (radius: number): [number, number] => [
      radius * Math.sin(rad),
      radius * Math.cos(rad) - lengthMm * Math.cos((reachDeg * Math.PI) / 180),
    ]
    const [innerX, innerY] = at(lengthMm)
    const [outerX, outerY] = at(lengthMm + LONG[size])
    ticks.push({ deg: n / 10, innerX, innerY, outerX, outerY, size })
  }
  const sag = lengthMm * (1 - Math.cos((reachDeg * Math.PI) / 180))
  return {
    ticks,
    widthMm: 2 * (lengthMm + LONG.whole) * Math.sin((reachDeg * Math.PI) / 180),
    heightMm: sag + LONG.whole,
    reachDeg,
  }
}
