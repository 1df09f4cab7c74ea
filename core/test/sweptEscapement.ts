import type { EscapementGeometry } from '../src/index.ts'

type Seen = { releaseDeg: number; dropDeg: number; lockDeg: number; recoilDeg: number }

/**
 * An escapement swept slowly by brute force, for the tests: tips go forward in tiny steps and are stopped where their
 * next step would cross an outline; an outline that moves onto a tip pushes the wheel back in tiny steps. It knows no
 * crossing of a line and a circle, only whether two short lines cross.
 */
export function sweptEscapement(g: EscapementGeometry, swingDeg: number, stepDeg = 0.004) {
  const pitch = 360 / g.teeth
  const at = (pallets: number, wheel: number, tooth: number): [number, number] => {
    const t = ((wheel + tooth * pitch) * Math.PI) / 180
    const x = g.tipRadiusMm * Math.sin(t)
    const y = g.tipRadiusMm * Math.cos(t) - g.centreDistanceMm
    const a = (pallets * Math.PI) / 180
    return [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)]
  }
  const crosses = (p: [number, number], q: [number, number]): 'entry' | 'exit' | null => {
    for (const [name, line] of [
      ['entry', g.palletEntry],
      ['exit', g.palletExit],
    ] as const)
      for (let i = 1; i < line.length; i++) {
        const a = line[i - 1] as { xMm: number; yMm: number }
        const b = line[i] as { xMm: number; yMm: number }
        const side = (ux: number, uy: number, vx: number, vy: number, wx: number, wy: number) =>
          (vx - ux) * (wy - uy) - (vy - uy) * (wx - ux)
        const s1 = side(a.xMm, a.yMm, b.xMm, b.yMm, p[0], p[1])
        const s2 = side(a.xMm, a.yMm, b.xMm, b.yMm, q[0], q[1])
        const s3 = side(p[0], p[1], q[0], q[1], a.xMm, a.yMm)
        const s4 = side(p[0], p[1], q[0], q[1], b.xMm, b.yMm)
        if (s1 * s2 < 0 && s3 * s4 <= 0) return name
      }
    return null
  }
  const all = [...g.palletEntry, ...g.palletExit]
  const lowest = Math.min(...all.map((p) => p.yMm)) - 1
  const widest = Math.max(...all.map((p) => Math.abs(p.xMm))) + 1
  /** far from both pallets: nothing to ask */
  const far = ([x, y]: [number, number]) => y < lowest || Math.abs(x) > widest
  const teeth = Array.from({ length: g.teeth }, (_, i) => i)
  const blocked = (fromP: number, fromW: number, toP: number, toW: number) => {
    for (const tooth of teeth) {
      const from = at(fromP, fromW, tooth)
      if (far(from)) continue
      const hit = crosses(from, at(toP, toW, tooth))
      if (hit) return hit
    }
    return null
  }
  let pallets = -swingDeg
  let wheel = 0
  let held: 'entry' | 'exit' | null = null
  const log: { pallets: number; wheel: number; held: 'entry' | 'exit' | null }[] = []
  const forward = () => {
    held = null
    for (let n = 0; n * stepDeg < 2 * pitch; n++) {
      const hit = blocked(pallets, wheel, pallets, wheel + stepDeg)
      if (hit) {
        held = hit
        return true
      }
      wheel += stepDeg
    }
    return false
  }
  let free = !forward()
  for (const to of [swingDeg, -swingDeg, swingDeg, -swingDeg, swingDeg]) {
    const way = Math.sign(to - pallets)
    while ((to - pallets) * way > 1e-9) {
      const next = pallets + way * Math.min(stepDeg, Math.abs(to - pallets))
      let tries = 0
      while (blocked(pallets, wheel, next, wheel - tries * (stepDeg / 4)) && tries < 400) tries++
      wheel -= tries * (stepDeg / 4)
      pallets = next
      if (!forward()) free = true
      log.push({ pallets, wheel, held })
    }
  }
  const told = (name: 'entry' | 'exit'): Seen | null => {
    // A release: the wheel jumps while the pallets take one step.
    const jumps = log.flatMap((now, i) => {
      const was = log[i - 1]
      return was && now.wheel - was.wheel > 0.15 ? [{ i, was, now }] : []
    })
    const left = jumps.findLast((j) => j.was.held === name)
    const landed = jumps.filter((j) => j.now.held === name && j.was.held !== name).at(-2)
    if (!left || !landed) return null
    const way = name === 'exit' ? -1 : 1
    let recoilDeg = 0
    let lockDeg = Number.NaN
    for (let i = landed.i; i < log.length; i++) {
      const s = log[i] as { pallets: number; wheel: number }
      recoilDeg = Math.max(recoilDeg, landed.now.wheel - s.wheel)
      if ((s.pallets - landed.now.pallets) * way >= 0 && s.wheel - landed.now.wheel > 2.5 * stepDeg) {
        lockDeg = Math.max(0, (s.pallets - landed.now.pallets) * way)
        break
      }
    }
    return { releaseDeg: left.now.pallets, dropDeg: left.now.wheel - left.was.wheel, lockDeg, recoilDeg }
  }
  return { entry: told('entry'), exit: told('exit'), free }
}
