import { normal, random } from './clockSound.ts'

/** A film of a swinging pendulum, drawn for tests alone. */
export interface MadeFilm {
  width?: number
  height?: number
  fps?: number
  seconds?: number
  semiArcDeg: number
  /** it dies away to 1/e in this time, s; not said: it is driven */
  tauS?: number
  middleDeg?: number
  periodS?: number
  /** of the suspension, px; may lie above the picture */
  pivot?: [number, number]
  /** from the suspension to the bob's middle, px */
  length?: number
  bobRadius?: number
  /** half width of the rod, px; 0 for none */
  rod?: number
  /** grey of noise, rms */
  noise?: number
  /** softness of all edges, px */
  blur?: number
  /** share of a frame's time for which the shutter is open */
  shutter?: number
  /** a brightness that is not the same everywhere */
  shade?: number
  dark?: boolean
  seed?: number
}

export function madeFilm(film: MadeFilm) {
  const [width, height] = [film.width ?? 320, film.height ?? 240]
  const fps = film.fps ?? 29.97
  const count = Math.round((film.seconds ?? 8) * fps)
  const gauss = normal(random(film.seed ?? 5))
  const hiss = Float32Array.from({ length: 1 << 16 }, () => (film.noise ?? 3) * gauss())
  const u = random((film.seed ?? 5) + 99)
  return Array.from({ length: count }, (_, n) => {
    const grey = new Uint8Array(width * height)
    const off = Math.floor(u() * (hiss.length - 1))
    const atS = n / fps
    const ground = new Float32Array(width * height)
    const SUB = film.shutter ? 5 : 1
    for (let s = 0; s < SUB; s++)
      draw(ground, width, height, film, atS + ((s - (SUB - 1) / 2) / SUB) * ((film.shutter ?? 0) / fps), 1 / SUB)
    for (let i = 0; i < grey.length; i++)
      grey[i] = Math.max(0, Math.min(255, Math.round(ground[i]! + hiss[(i + off) % hiss.length]!)))
    return { width, height, grey, atS }
  })
}

function draw(out: Float32Array, width: number, height: number, film: MadeFilm, atS: number, weight: number): void {
  const arcDeg = film.semiArcDeg * Math.exp(-atS / (film.tauS ?? Infinity))
  const angle =
    (((film.middleDeg ?? 0) + arcDeg * Math.sin((2 * Math.PI * atS) / (film.periodS ?? 1) + 0.7)) * Math.PI) / 180
  const [px, py] = film.pivot ?? [width / 2 + 0.3, -30]
  const length = film.length ?? height - 80
  const radius = film.bobRadius ?? 26
  const soft = film.blur ?? 1.2
  const [ux, uy] = [Math.sin(angle), Math.cos(angle)]
  const [bx, by] = [px + length * ux, py + length * uy]
  const [ink, paper] = film.dark ? [205, 45] : [55, 200]
  const cover = (distance: number) => 1 / (1 + Math.exp(distance / (soft / 2.2)))
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const bob = cover(Math.hypot(x - bx, y - by) - radius)
      const along = (x - px) * ux + (y - py) * uy
      const across = Math.abs((x - px) * uy - (y - py) * ux)
      const rod = film.rod && along > 0 && along < length ? cover(across - film.rod) : 0
      const share = Math.max(bob, rod)
      const light = paper + (film.shade ?? 0) * (x / width - 0.5)
      out[y * width + x]! += weight * (light + share * (ink - light))
    }
}
