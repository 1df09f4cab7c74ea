import type { GreyFrame } from '../swing/frame.ts'
import { practiceAngleDeg, type PracticeClock } from './clock.ts'
import { seededRandom } from './random.ts'

/** The practice clock's pendulum as a camera would see it: its size, and where it hangs, px. */
export const PRACTICE_FILM = {
  width: 320,
  height: 240,
  suspension: { x: 160, y: -120 },
  lengthPx: 310,
  bobPx: 26,
  rodPx: 3,
}

const GROUND = 198
const INK = 62
const SOFT_PX = 1.1
const NOISE = 2.5

/**
 * One picture of the practice clock's pendulum, grey, with the little noise of a real one; it stands in for the camera.
 *
 * @param atS - s since it passed plumb to the right
 * @param heldDeg - where a hand holds it, degrees from plumb, + right; null: it swings
 */
export function practiceFrame(clock: PracticeClock, atS: number, heldDeg: number | null = null): GreyFrame {
  const { width, height, suspension, lengthPx, bobPx, rodPx } = PRACTICE_FILM
  const angle = ((heldDeg ?? practiceAngleDeg(clock, atS)) * Math.PI) / 180
  const [ux, uy] = [Math.sin(angle), Math.cos(angle)]
  const bob = { x: suspension.x + lengthPx * ux, y: suspension.y + lengthPx * uy }
  const { normal } = seededRandom(clock.seed + Math.round(atS * 1000))
  const noise = Array.from({ length: 977 }, () => NOISE * normal())
  const grey = new Uint8Array(width * height)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [dx, dy] = [x - suspension.x, y - suspension.y]
      const along = dx * ux + dy * uy
      const across = Math.abs(dx * uy - dy * ux)
      const rod = along < lengthPx ? inside(across - rodPx) : 0
      const cover = Math.max(rod, inside(Math.hypot(x - bob.x, y - bob.y) - bobPx))
      grey[y * width + x] = GROUND + cover * (INK - GROUND) + (noise[(31 * y + 7 * x) % noise.length] ?? 0)
    }
  return { width, height, grey, atS }
}

/** 1 within an edge, 0 outside, soft over a pixel or two. */
function inside(distance: number): number {
  if (distance > 6) return 0
  if (distance < -6) return 1
  return 1 / (1 + Math.exp(distance / (SOFT_PX / 2)))
}
