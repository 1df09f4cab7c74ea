import type { ClickFound } from './found.ts'

/** Trains that a spring drives, by how the click work of their great wheels stands. */
export interface ClicksStanding {
  /** not wholly judged yet */
  open: string[]
  bad: string[]
}

/** What drives a train through a ratchet and its click, under a spring. */
const SPRUNG = new Set(['spring', 'open-spring', 'fusee', 'chime-drum'])

/** Whether a train’s great wheel carries a click that holds a spring. */
export function hasClick(power: string | undefined): boolean {
  return power !== undefined && SPRUNG.has(power)
}

/** Which trains’ click work is still to be judged, and where it is bad: a slipping click breaks fingers. */
export function clicksOf(
  trains: { train: string; power: string }[],
  wheels: (ClickFound & { train: string; arborIndex: number; part: string })[],
): ClicksStanding {
  const sprung = trains.filter((t) => hasClick(t.power)).map((t) => t.train)
  const found = (train: string) => wheels.find((w) => w.train === train && w.arborIndex === 0 && w.part === 'wheel')
  const said = (train: string) => {
    const w = found(train)
    return w ? [w.click, w.clickSpring, w.rivet] : ['']
  }
  const bad = sprung.filter((train) => said(train).includes('bad'))
  return { bad, open: sprung.filter((train) => !bad.includes(train) && said(train).includes('')) }
}
