import type { Hole, HoleChange } from '@treadle/contract'
import {
  checkHole,
  FieldError,
  formatClockDirection,
  fromMm,
  parseClockDirection,
  readFigure,
  type LengthUnit,
} from '@treadle/core'

/** The measuring order of a hole: one field after another, with Enter. */
export const MEASURES = ['longAxis', 'shortAxis', 'wear', 'pivot', 'plate'] as const
export type Measure = (typeof MEASURES)[number]
export const MEASURE_TITLES: Record<Measure, string> = {
  longAxis: 'Long way',
  shortAxis: 'Short way',
  wear: 'Worn toward',
  pivot: 'Pivot, finished',
  plate: 'Plate here',
}

/** What stands in the fields, as typed. */
export type Draft = Record<Measure, string>

const MM_FIELDS = { longAxis: 'longAxisMm', shortAxis: 'shortAxisMm', pivot: 'pivotMm', plate: 'plateMm' } as const

/** The fields of a kept hole, in the unit that is shown now. */
export function draftOf(hole: Hole, unit: LengthUnit): Draft {
  const length = (measure: keyof typeof MM_FIELDS) => {
    const mm = hole[MM_FIELDS[measure]]
    const typed = hole.typed[measure]
    if (mm === null) return ''
    if (typed && typed.unit === unit) return typed.value
    return fromMm(mm, unit).toFixed(unit === 'mm' ? 2 : 1)
  }
  return {
    longAxis: length('longAxis'),
    shortAxis: length('shortAxis'),
    wear: hole.wearDeg === null ? '' : formatClockDirection(hole.wearDeg),
    pivot: length('pivot'),
    plate: length('plate'),
  }
}

export type Measured = Pick<HoleChange, 'longAxisMm' | 'shortAxisMm' | 'wearDeg' | 'pivotMm' | 'plateMm'>

/** The draft as figures, and a sentence for each field that can't be right; what was typed stays as it is. */
export function readDraft(
  draft: Draft,
  unit: LengthUnit,
): { figures: Measured; errors: Partial<Record<Measure, string>> } {
  const errors: Partial<Record<Measure, string>> = {}
  const length = (measure: keyof typeof MM_FIELDS): number | null => {
    const read = readFigure(draft[measure], 'mm', { typedIn: unit })
    if (read.read && read.value === null) return null
    if (!read.read || read.value === null || read.value <= 0) {
      errors[measure] = read.read
        ? `${MEASURE_TITLES[measure]} must be a number above 0, in ${unit}.`
        : `${MEASURE_TITLES[measure]}: ${read.sentence}.`
      return null
    }
    return Math.round(read.value * 1e5) / 1e5
  }
  let wearDeg: number | null = null
  if (draft.wear.trim() !== '')
    try {
      wearDeg = parseClockDirection(draft.wear)
    } catch {
      errors.wear = 'Worn toward must be a direction on the dial, such as 2 or 1:50.'
    }
  const figures = {
    longAxisMm: length('longAxis'),
    shortAxisMm: length('shortAxis'),
    wearDeg,
    pivotMm: length('pivot'),
    plateMm: length('plate'),
  }
  const { longAxisMm, shortAxisMm, pivotMm } = figures
  if (longAxisMm !== null && shortAxisMm !== null)
    try {
      checkHole({ longAxisMm, shortAxisMm, pivotMm: pivotMm ?? shortAxisMm })
    } catch (error) {
      if (!(error instanceof FieldError)) throw error
      const shown = (mm: number) => `${fromMm(mm, unit).toFixed(unit === 'mm' ? 2 : 1)} ${unit}`
      if (error.field === 'shortAxisMm')
        errors.shortAxis = `The short way can’t be above the long way, ${shown(longAxisMm)}. Measure both again.`
      else if (error.field === 'pivotMm')
        errors.pivot = `The pivot can’t be larger than its hole, ${shown(shortAxisMm)} the short way.`
      else errors.longAxis = `A hole of ${shown(longAxisMm)} can’t be. Is it in another unit?`
    }
  return { figures, errors }
}

/** What of a hole a draft says: its figures, and each as it was typed. */
export function measuredOf(draft: Draft, unit: LengthUnit): Measured & Pick<HoleChange, 'typed'> {
  const typed = (measure: Measure) =>
    draft[measure] === '' ? null : { value: draft[measure], unit: measure === 'wear' ? ('dial' as const) : unit }
  return {
    ...readDraft(draft, unit).figures,
    typed: {
      longAxis: typed('longAxis'),
      shortAxis: typed('shortAxis'),
      wear: typed('wear'),
      pivot: typed('pivot'),
      plate: typed('plate'),
    },
  }
}

/** Whether all that a verdict needs is there and can be. */
export function isWhole(
  read: ReturnType<typeof readDraft>,
): read is { figures: Required<{ [K in keyof Measured]: number }>; errors: Record<string, never> } {
  return Object.keys(read.errors).length === 0 && Object.values(read.figures).every((v) => v !== null)
}
