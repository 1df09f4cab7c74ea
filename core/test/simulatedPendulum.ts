const RAD = Math.PI / 180

/** Period of a pendulum `lengthM` long let go at `arcDeg`, by Runge and Kutta's steps; it knows no formula for T. */
export function simulatedPeriodS(lengthM: number, arcDeg: number, gravity = 9.80665): number {
  // A quarter of a period lies between rest at the end and the first passage of plumb.
  const step = Math.sqrt(lengthM / gravity) / 4000
  let angle = arcDeg * RAD
  let speed = 0
  const turn = (a: number) => (-gravity / lengthM) * Math.sin(a)
  for (let n = 0; ; n++) {
    const [k1, l1] = [speed, turn(angle)]
    const [k2, l2] = [speed + (step / 2) * l1, turn(angle + (step / 2) * k1)]
    const [k3, l3] = [speed + (step / 2) * l2, turn(angle + (step / 2) * k2)]
    const [k4, l4] = [speed + step * l3, turn(angle + step * k3)]
    const next = angle + (step / 6) * (k1 + 2 * k2 + 2 * k3 + k4)
    if (next <= 0) return 4 * step * (n + angle / (angle - next))
    angle = next
    speed += (step / 6) * (l1 + 2 * l2 + 2 * l3 + l4)
  }
}

/**
 * Times, s, at which a swing θ = A·sin(2πt/T) passes its two releases, found by walking along it in small steps.
 *
 * @returns interval from the right-hand release to the left-hand one, and back, ms
 */
export function walkedIntervals(periodS: number, arcDeg: number, releaseDeg: number, offsetDeg: number) {
  const angle = (t: number) => arcDeg * Math.sin((2 * Math.PI * t) / periodS)
  const crossing = (target: number, rising: boolean, from: number) => {
    const step = periodS / 20_000
    for (let t = from; ; t += step) {
      const [a, b] = [angle(t), angle(t + step)]
      if (rising ? a < target && b >= target : a > target && b <= target) return t + (step * (target - a)) / (b - a)
    }
  }
  const right = crossing(offsetDeg + releaseDeg, true, -periodS / 4)
  const left = crossing(offsetDeg - releaseDeg, false, right)
  return { rightToLeftMs: 1000 * (left - right), leftToRightMs: 1000 * (periodS - (left - right)) }
}
