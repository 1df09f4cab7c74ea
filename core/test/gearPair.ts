/** A pair of involute gears turned by numbers, to see which way teeth truly push, friction and all. */

interface Vector {
  x: number
  y: number
}

/**
 * The mean force on the driven gear over one tooth's contact, for a driver turning about `driver` and driving `driven`,
 * per unit of torque that the driven one resists.
 *
 * No formula for the force's direction is used: the flank is unwound from its base circle as points, where it touches is
 * searched for where its normal goes through the pitch point, the sliding there is the difference of the two bodies'
 * velocities, and the normal force is what balances the torque.
 */
export function meanToothForce(
  driver: Vector,
  driven: Vector,
  driverRadius: number,
  drivenRadius: number,
  driverTurnsClockwise: boolean,
  friction: number,
): Vector {
  const apart = Math.hypot(driven.x - driver.x, driven.y - driver.y)
  const toward = { x: (driven.x - driver.x) / apart, y: (driven.y - driver.y) / apart }
  const pitch = { x: driver.x + toward.x * driverRadius, y: driver.y + toward.y * driverRadius }
  const base = driverRadius * Math.cos((20 * Math.PI) / 180)
  const spin = driverTurnsClockwise ? -1 : 1
  const otherSpin = (-spin * driverRadius) / drivenRadius
  const start = Math.atan2(toward.y, toward.x)
  let sum = { x: 0, y: 0 }
  let count = 0
  for (let k = -200; k <= 200; k++) {
    const turned = start + (k / 200) * 0.18
    const touch = contact(driver, base, turned, -spin, pitch)
    if (!touch) continue
    const { at, normal } = touch
    const own = velocity(at, driver, spin)
    const other = velocity(at, driven, otherSpin)
    const slide = { x: own.x - other.x, y: own.y - other.y }
    const speed = Math.hypot(slide.x, slide.y)
    const rub = speed < 1e-9 ? { x: 0, y: 0 } : { x: (friction * slide.x) / speed, y: (friction * slide.y) / speed }
    const unit = { x: normal.x + rub.x, y: normal.y + rub.y }
    const arm = { x: at.x - driven.x, y: at.y - driven.y }
    const torque = (arm.x * unit.y - arm.y * unit.x) * Math.sign(otherSpin)
    sum = { x: sum.x + unit.x / torque, y: sum.y + unit.y / torque }
    count++
  }
  return { x: sum.x / count, y: sum.y / count }
}

/** Where a flank unwound from the base circle touches: where its normal goes through the pitch point. */
function contact(centre: Vector, base: number, turned: number, hand: number, pitch: Vector) {
  const flank = (t: number, by: number) => {
    const a = by + hand * t
    return {
      x: centre.x + base * (Math.cos(a) + hand * t * Math.sin(a)),
      y: centre.y + base * (Math.sin(a) - hand * t * Math.cos(a)),
    }
  }
  // The flank's foot is so far back that it meets the line of centres near its pitch circle.
  const foot = turned - hand * (Math.tan((20 * Math.PI) / 180) - (20 * Math.PI) / 180)
  const off = (t: number) => {
    const at = flank(t, foot)
    const after = flank(t + 1e-6, foot)
    return (after.x - at.x) * (pitch.x - at.x) + (after.y - at.y) * (pitch.y - at.y)
  }
  let low = 0.02
  let high = 0.9
  if (off(low) * off(high) > 0) return null
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (off(low) * off(middle) <= 0) high = middle
    else low = middle
  }
  const at = flank(low, foot)
  const after = flank(low + 1e-6, foot)
  const length = Math.hypot(after.x - at.x, after.y - at.y)
  let normal = { x: -(after.y - at.y) / length, y: (after.x - at.x) / length }
  // It pushes the way the flank moves.
  const moves = velocity(at, centre, -hand)
  if (normal.x * moves.x + normal.y * moves.y < 0) normal = { x: -normal.x, y: -normal.y }
  return { at, normal }
}

function velocity(at: Vector, about: Vector, spin: number): Vector {
  return { x: -spin * (at.y - about.y), y: spin * (at.x - about.x) }
}
