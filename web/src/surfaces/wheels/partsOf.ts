import type { JobPage, WheelSheetRow } from '@treadle/contract'
import { hasClick, trainSheet, unlessRefused, FieldError, type Turn, type WheelPart } from '@treadle/core'

/** A wheel or a pinion of the movement, as the train sheets count it. */
export interface MovementPart {
  key: string
  train: string
  arbor: string
  arborIndex: number
  part: 'wheel' | 'pinion'
  count: number | null
  turn: Turn | null
  escape: boolean
  /** it carries a click: the great wheel of a train that a spring drives */
  hasClick: boolean
  /** the wheel that runs in this pinion */
  drivenBy: string | null
  moduleMm: number | null
}

/** Every wheel and pinion of the clock's counted trains, from the great wheel up. */
export function partsOf({
  trainSheets,
  clock,
  plateMap,
}: Pick<JobPage, 'trainSheets' | 'clock' | 'plateMap'>): MovementPart[] {
  return trainSheets.flatMap((sheet) => {
    const turning = unlessRefused(() => trainSheet(sheet.arbors, sheet.hourly, sheet.escape, sheet.greatTurns))
    const power = clock.trains.find((t) => t.train === sheet.train)?.power
    return sheet.arbors.flatMap((a, i): MovementPart[] => {
      const turn = turning instanceof FieldError ? null : (turning.arbors[i]?.turn ?? null)
      const placed = plateMap?.arbors.find((p) => p.train === sheet.train && p.name === a.name)
      const below = sheet.arbors[i - 1]
      const shared = { train: sheet.train, arbor: a.name, arborIndex: i, turn, moduleMm: placed?.moduleMm ?? null }
      const key = (part: string) => `${sheet.train} ${a.name} ${part}`
      const escape = sheet.escape && i === sheet.arbors.length - 1
      const wheel: MovementPart = {
        ...shared,
        key: key('wheel'),
        part: 'wheel',
        count: a.wheel,
        escape,
        hasClick: i === 0 && hasClick(power),
        drivenBy: null,
      }
      const pinion: MovementPart = {
        ...shared,
        key: key('pinion'),
        part: 'pinion',
        count: a.pinion,
        escape: false,
        hasClick: false,
        drivenBy: below?.name ?? null,
      }
      return [...(a.wheel === null && !escape ? [] : [wheel]), ...(i === 0 || a.pinion === null ? [] : [pinion])]
    })
  })
}

/** "Great wheel", "Third arbor, wheel": an arbor named after its wheel is not named twice. */
export function partTitle({ arbor, part }: Pick<MovementPart, 'arbor' | 'part'>): string {
  return part === 'wheel' && arbor.toLowerCase().endsWith('wheel') ? arbor : `${arbor}, ${part}`
}

/** The sheet of a part: a pinion's is of cut leaves or of trundles, whichever was begun. */
export function sheetOf(part: MovementPart, wheels: WheelSheetRow[]): WheelSheetRow | undefined {
  const mine = (kind: WheelPart) =>
    wheels.find((w) => w.train === part.train && w.arbor === part.arbor && w.part === kind)
  return part.part === 'wheel' ? mine('wheel') : (mine('lantern') ?? mine('pinion'))
}
