import { FieldError, suspensionAbove, suspensionByScale, unlessRefused, type Place } from '@treadle/core'
import { useState } from 'react'
import type { SwingSeen } from '../../see/useSwing.ts'

/** By what the angle is told. */
export type ScaleWay = 'unaided' | 'suspension' | 'scale' | 'length'
export type Tapped = 'bob' | 'suspension' | 'left' | 'right'

/** What each way asks to be tapped, in order. */
const ASKS: Record<ScaleWay, Tapped[]> = {
  unaided: [],
  suspension: ['suspension'],
  scale: ['left', 'right'],
  length: ['left', 'right'],
}

export interface Scale {
  way: ScaleWay
  choose: (way: ScaleWay) => void
  places: Partial<Record<Tapped, Place>>
  /** what the next tap on the picture is */
  asked: Tapped | null
  ask: (what: Tapped) => void
  tap: (place: Place, atS: number) => void
  /** degrees between the two strokes; mm between the two points, and from the suspension to the bob */
  betweenDeg: number | null
  betweenMm: number | null
  lengthMm: number | null
  setFigures: (figures: Partial<Pick<Scale, 'betweenDeg' | 'betweenMm' | 'lengthMm'>>) => void
  sentence: string
  clear: () => void
}

/** Half the side of what is followed about a tapped bob, px of the picture. */
const HALF_PX = 22

/** How the picture is made an angle: by what is seen, or by what a person points at. */
export function useScale(seen: SwingSeen): Scale {
  const [way, setWay] = useState<ScaleWay>('unaided')
  const [places, setPlaces] = useState<Scale['places']>({})
  const [asked, setAsked] = useState<Tapped | null>(null)
  const [figures, setFigures] = useState({
    betweenDeg: null as number | null,
    betweenMm: null as number | null,
    lengthMm: null as number | null,
  })
  const [sentence, setSentence] = useState('')

  const know = (by: ScaleWay, at: Scale['places'], f: typeof figures) => {
    const found = unlessRefused(() => suspensionOf(by, at, f, middleOf(seen)))
    if (found instanceof FieldError) {
      setSentence(found.message)
      return
    }
    setSentence('')
    seen.know({ suspension: found ?? undefined })
  }
  return {
    way,
    places,
    asked,
    ...figures,
    sentence,
    choose: (next) => {
      setWay(next)
      setAsked(ASKS[next][0] ?? null)
      know(next, places, figures)
    },
    ask: setAsked,
    tap: (place, atS) => {
      if (asked === null) return
      const all = { ...places, [asked]: place }
      setPlaces(all)
      if (asked === 'bob') seen.know({ mark: { ...place, half: HALF_PX, atS } })
      const list = ASKS[way]
      setAsked(asked === 'bob' ? null : (list[list.indexOf(asked) + 1] ?? null))
      know(way, all, figures)
    },
    setFigures: (part) => {
      const all = { ...figures, ...part }
      setFigures(all)
      know(way, places, all)
    },
    clear: () => {
      setPlaces({})
      setAsked(null)
      setWay('unaided')
      setSentence('')
    },
  }
}

/** Where the bob hangs in the middle of its swing, as far as it was followed. */
function middleOf(seen: SwingSeen): Place | null {
  const path = (seen.told?.swing.path ?? []).flatMap((p) => (p ? [p] : []))
  if (path.length === 0) return null
  const xs = path.map((p) => p.x)
  return { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: Math.max(...path.map((p) => p.y)) }
}

function suspensionOf(
  way: ScaleWay,
  { suspension, left, right }: Scale['places'],
  { betweenDeg, betweenMm, lengthMm }: Pick<Scale, 'betweenDeg' | 'betweenMm' | 'lengthMm'>,
  middle: Place | null,
): Place | null {
  if (way === 'suspension') return suspension ?? null
  if (way === 'scale') return left && right && betweenDeg !== null ? suspensionByScale(left, right, betweenDeg) : null
  if (way === 'length' && left && right && betweenMm !== null && lengthMm !== null && middle)
    return suspensionAbove(middle, lengthMm, betweenMm / Math.hypot(right.x - left.x, right.y - left.y))
  return null
}
