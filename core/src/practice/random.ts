/** Chance from a seed: uniform in [0, 1) and standard normal. The same seed gives the same run. */
export interface SeededRandom {
  uniform: () => number
  normal: () => number
}

/** mulberry32 for the uniform numbers (32-bit state), Box and Muller for the normal ones. */
export function seededRandom(seed: number): SeededRandom {
  let state = Math.imul(seed | 0, 0x9e3779b1) >>> 0
  let spare: number | null = null
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
  const normal = () => {
    if (spare !== null) {
      const value = spare
      spare = null
      return value
    }
    const radius = Math.sqrt(-2 * Math.log(1 - uniform()))
    const angle = 2 * Math.PI * uniform()
    spare = radius * Math.sin(angle)
    return radius * Math.cos(angle)
  }
  return { uniform, normal }
}
