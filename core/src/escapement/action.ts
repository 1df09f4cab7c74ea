import { FieldError, requireCount, requireFinite, requirePositive, requireWithin } from '../check/require.ts'
import type { Point } from '../plate/point.ts'
import { wallsOf, type Wall } from './walls.ts'

export interface EscapementGeometry {
  teeth: number
  tipRadiusMm: number
  /** from the pallets’ arbor down to the wheel’s */
  centreDistanceMm: number
  /** outlines about the pallets’ arbor, x right and y up, the pallets in the middle of their swing */
  palletEntry: Point[]
  palletExit: Point[]
}

/** What one pallet does, degrees of the pallets’ turning unless said. */
export interface PalletAction {
  /** at which a tooth leaves it; null: it does not let go within the swing */
  releaseDeg: number | null
  /** how far the wheel then jumps, degrees of the wheel */
  dropDeg: number | null
  /** how far the pallets turn back, from where a tooth landed on it, until the wheel moves on */
  lockDeg: number | null
  /** how far it pushes the wheel back from where it landed, degrees of the wheel */
  recoilDeg: number | null
}

export interface EscapementAction {
  entry: PalletAction
  exit: PalletAction
  /** half the angle between the two releases; what the beat is reckoned by */
  releaseHalfDeg: number | null
  /** how far to the clockwise side the middle of the two releases stands */
  middleDeg: number | null
  verdict: 'works' | 'runs through' | 'jams'
  reasons: string[]
}

/** Pallets are followed in steps of this, and where something happens in steps so fine. */
const STEP_DEG = 0.05
const FINEST_DEG = 1e-4
/** A wall’s crossing goes no further along its outline than this in one step, mm; more is another crossing. */
const NEAR_MM = 0.06
/** Less of the wheel’s turning is how arcs are drawn in short lines, not the wheel going on. */
const MOVED_DEG = 0.004

/**
 * Where each pallet lets go, the drop, lock and recoil of an escapement drawn from the wheel’s and the pallets’ figures.
 *
 * The wheel has ideal pointed tips, equally spaced, and is pressed clockwise, as seen; its centre stands
 * `centreDistanceMm` below the pallets’ arbor. The pallets swing slowly from −swingDeg to +swingDeg and back, + being
 * clockwise, so that the entry pallet, on the left, lifts and lets go at +. At each moment the wheel stands at the first
 * contact: where an outline crosses the circle of the tips, no tip passes. A crossing that moves back pushes the wheel
 * back, one that moves on lets it follow, one that goes lets it jump to the next. Crossings are found exactly; the
 * moments are followed in steps and halved where something happens, so angles are good to about 0.005°.
 *
 * @param swingDeg - above 0, up to 60: as far as the pendulum carries the pallets either way
 * @throws FieldError for figures that no escapement has
 */
export function escapementAction(geometry: EscapementGeometry, swingDeg: number): EscapementAction {
  checkGeometry(geometry)
  requirePositive('swingDeg', swingDeg)
  requireWithin('swingDeg', swingDeg, 0.1, 60)
  const walls = wallsOf(geometry)
  const wheel = new Wheel(walls, geometry.teeth, -swingDeg)
  // The first swing to and fro finds where the wheel stands; the second is told.
  for (const to of [swingDeg, -swingDeg]) wheel.swingTo(to)
  wheel.begin()
  for (const to of [swingDeg, -swingDeg, swingDeg]) wheel.swingTo(to)
  return told(wheel, swingDeg)
}

/**
 * How far the wheel has turned, degrees from any start, when the pallets stand at an angle on their way to +: what an
 * escapement is drawn by. Null where it runs through.
 */
export function wheelStands(geometry: EscapementGeometry, swingDeg: number, palletDeg: number): number | null {
  checkGeometry(geometry)
  const reach = Math.max(swingDeg, Math.abs(palletDeg))
  const wheel = new Wheel(wallsOf(geometry), geometry.teeth, -reach)
  for (const to of [reach, -reach, palletDeg]) wheel.swingTo(to)
  return wheel.free ? null : wheel.stands
}

interface Release {
  pallet: 'entry' | 'exit'
  atDeg: number
  dropDeg: number
  onto: 'entry' | 'exit'
  landedDeg: number
}

interface Stand {
  pallets: number
  wheel: number
}

/** A wheel pressed forward against the pallets, followed through their swing. */
class Wheel {
  readonly #walls: (palletDeg: number) => Wall[]
  readonly #pitch: number
  #at: number
  #wheel = 0
  #held: Wall | null = null
  #near: { wall: Wall; gap: number }[] = []
  readonly releases: Release[] = []
  /** pallets’ and wheel’s angles since the telling began, in the order of time */
  readonly path: Stand[] = []
  free = false
  pinched = false

  constructor(walls: (palletDeg: number) => Wall[], teeth: number, startDeg: number) {
    this.#walls = walls
    this.#pitch = 360 / teeth
    this.#at = startDeg
    this.#fall(walls(startDeg))
  }

  get stands(): number {
    return this.#wheel
  }

  begin(): void {
    this.releases.length = 0
    this.path.length = 0
    this.free = false
    this.pinched = false
    this.path.push({ pallets: this.#at, wheel: this.#wheel })
  }

  swingTo(toDeg: number): void {
    const way = Math.sign(toDeg - this.#at)
    while ((toDeg - this.#at) * way > 1e-12) {
      const step = Math.min(STEP_DEG, Math.abs(toDeg - this.#at))
      this.#step(this.#at + way * step)
      this.path.push({ pallets: this.#at, wheel: this.#wheel })
    }
  }

  /** Goes to `toDeg` in one step, or in two halves where the wall that holds is not found again near by. */
  #step(toDeg: number): void {
    const walls = this.#walls(toDeg)
    const fine = Math.abs(toDeg - this.#at) <= FINEST_DEG
    const held = this.#held
    const now = held && follow(held, walls)
    if (held && !now && !fine) {
      const middle = (this.#at + toDeg) / 2
      this.#step(middle)
      this.#step(toDeg)
      return
    }
    this.#at = toDeg
    if (!held) return this.#fall(walls)
    if (!now) {
      const before = this.#wheel
      this.#fall(walls)
      const landed = this.#held
      if (landed)
        this.releases.push({
          pallet: held.pallet,
          atDeg: toDeg,
          dropDeg: this.#wheel - before,
          onto: landed.pallet,
          landedDeg: this.#wheel,
        })
      return
    }
    this.#wheel += turned(held.deg, now.deg, this.#pitch)
    this.#held = now
    this.#meet(walls, now)
  }

  /** Another wall may have come to a tip meanwhile: one from ahead now holds it, one from behind pinches it. */
  #meet(walls: Wall[], held: Wall): void {
    const near = walls.flatMap((wall) => (wall === held ? [] : [{ wall, gap: this.#ahead(wall) }]))
    const close = this.#pitch / 4
    for (const { wall, gap } of near) {
      const was = this.#near.find(
        (n) => n.wall.pallet === wall.pallet && Math.abs(n.wall.alongMm - wall.alongMm) < NEAR_MM,
      )
      if (!was) continue
      if (was.gap < close && gap > this.#pitch - close) {
        // It stood ahead and is behind now: it has pushed the wheel back to where it is.
        this.#wheel -= this.#pitch - gap
        this.#held = wall
        this.#near = []
        return
      }
      if (was.gap > this.#pitch - close && gap < close) this.pinched = true
    }
    this.#near = near
  }

  /** On to the next wall ahead of a tip; none: the wheel is free. */
  #fall(walls: Wall[]): void {
    this.#near = []
    let next: { wall: Wall; gap: number } | null = null
    for (const wall of walls) {
      const gap = this.#ahead(wall)
      if (gap > 1e-9 && (!next || gap < next.gap)) next = { wall, gap }
    }
    if (!next) {
      this.free = true
      this.#held = null
      return
    }
    this.#wheel += next.gap
    this.#held = next.wall
  }

  /** How far a wall is ahead of the tip behind it, degrees of the wheel, from 0 up to one space. */
  #ahead(wall: Wall): number {
    const gap = (wall.deg - this.#wheel) % this.#pitch
    return gap < 0 ? gap + this.#pitch : gap
  }
}

/** The same crossing a moment later: on the same pallet, the nearest along its outline; null where there is none near. */
function follow(held: Wall, walls: Wall[]): Wall | null {
  let best: Wall | null = null
  let least = NEAR_MM
  for (const wall of walls) {
    const apart = Math.abs(wall.alongMm - held.alongMm)
    if (wall.pallet === held.pallet && apart < least) [best, least] = [wall, apart]
  }
  return best
}

/** From one angle to another near it, a full space of the teeth being no difference. */
function turned(from: number, to: number, pitch: number): number {
  const by = (to - from) % pitch
  return by > pitch / 2 ? by - pitch : by < -pitch / 2 ? by + pitch : by
}

function told(wheel: Wheel, swingDeg: number): EscapementAction {
  const { path, releases } = wheel
  const entry = palletTold('entry', path, releases)
  const exit = palletTold('exit', path, releases)
  const reasons: string[] = []
  const twice = releases.some((r, i) => r.onto === r.pallet || releases[i + 1]?.pallet === r.pallet)
  if (wheel.free) reasons.push('At some angle neither pallet holds the wheel: it runs through.')
  else if (twice) reasons.push('A tooth lands on the pallet that has just let one go: the other does not catch it.')
  const stuck = [
    ...(wheel.pinched ? ['A tooth is caught between the two pallets, or behind one of them.'] : []),
    ...(entry.releaseDeg === null ? [`Within ${swingDeg}° the entry pallet does not let go.`] : []),
    ...(exit.releaseDeg === null ? [`Within ${swingDeg}° the exit pallet does not let go.`] : []),
  ]
  const through = wheel.free || twice
  if (!through) reasons.push(...stuck)
  const [up, down] = [entry.releaseDeg, exit.releaseDeg]
  const verdict = through ? 'runs through' : stuck.length > 0 ? 'jams' : 'works'
  if (verdict === 'works') {
    for (const [name, pallet] of [
      ['entry', entry],
      ['exit', exit],
    ] as const)
      if (pallet.lockDeg === 0 && pallet.recoilDeg === 0)
        reasons.push(`On the ${name} pallet a tooth lands on the impulse face: it has no lock.`)
  }
  return {
    entry,
    exit,
    releaseHalfDeg: up === null || down === null ? null : (up - down) / 2,
    middleDeg: up === null || down === null ? null : (up + down) / 2,
    verdict,
    reasons,
  }
}

/** What one pallet did: its last release, and how the tooth behaved that landed on it before. */
function palletTold(name: 'entry' | 'exit', path: Stand[], releases: Release[]): PalletAction {
  const left = releases.findLast((r) => r.pallet === name)
  const landings = releases.filter((r) => r.onto === name && r.pallet !== name)
  const stays = landings.map((landing) => stay(landing, path)).filter((s) => s !== null)
  const last = stays.at(-1)
  return {
    releaseDeg: left?.atDeg ?? null,
    dropDeg: left?.dropDeg ?? null,
    lockDeg: last?.lockDeg ?? null,
    recoilDeg: last?.recoilDeg ?? null,
  }
}

/** From a landing on: how far the wheel is pushed back, and how far the pallets turn back until it goes on. */
function stay(landing: Release, path: Stand[]): { lockDeg: number; recoilDeg: number } | null {
  const began = path.findIndex(
    (s) => s.wheel === landing.landedDeg || s.wheel > landing.landedDeg - landing.dropDeg / 2,
  )
  if (began < 0) return null
  // Entry lets go on the way to +, so from its landing on the exit the pallets turn back towards −.
  const back = landing.pallet === 'entry' ? -1 : 1
  let recoilDeg = 0
  let before: Stand = { pallets: landing.atDeg, wheel: landing.landedDeg }
  for (let i = began; i < path.length; i++) {
    const stand = path[i] as Stand
    recoilDeg = Math.max(recoilDeg, landing.landedDeg - stand.wheel)
    const beyond = (stand.pallets - landing.atDeg) * back
    const moved = stand.wheel - landing.landedDeg
    if (beyond >= 0 && moved > MOVED_DEG) {
      const at = wentOn(before, stand, path[i + 1], moved)
      return { lockDeg: Math.max(0, (at - landing.atDeg) * back), recoilDeg: recoilDeg < MOVED_DEG ? 0 : recoilDeg }
    }
    before = stand
  }
  return null
}

/** Where between two stands the wheel went on: back along the way it goes after them, a corner being passed at once. */
function wentOn(before: Stand, stand: Stand, next: Stand | undefined, moved: number): number {
  const slope = next ? (next.wheel - stand.wheel) / (next.pallets - stand.pallets) : 0
  const at = slope === 0 ? before.pallets : stand.pallets - moved / slope
  const [low, high] = [Math.min(before.pallets, stand.pallets), Math.max(before.pallets, stand.pallets)]
  return Math.min(high, Math.max(low, at))
}

function checkGeometry(g: EscapementGeometry): void {
  requireCount('teeth', g.teeth, 3, 200)
  requirePositive('tipRadiusMm', g.tipRadiusMm)
  requirePositive('centreDistanceMm', g.centreDistanceMm)
  for (const field of ['palletEntry', 'palletExit'] as const) {
    const outline = g[field]
    if (outline.length < 2 || outline.length > 400)
      throw new FieldError(field, outline.length, 'its outline needs 2 to 400 points')
    outline.forEach((p, i) => {
      requireFinite(`${field}[${i}].xMm`, p.xMm)
      requireFinite(`${field}[${i}].yMm`, p.yMm)
    })
  }
}
