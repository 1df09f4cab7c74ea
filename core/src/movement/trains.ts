import { FieldError } from '../check/require.ts'
import type { MapArbor } from '../plate/movement.ts'
import { TRAIN_NAMES, type TrainName } from '../train/names.ts'
import { trainSheet, type TrainArbor, type TrainSheet } from '../train/sheet.ts'

/** An arbor as the plate map has it: its place in mm, and where along it its pinion and wheel sit. */
export interface PlacedArbor {
  train: TrainName
  name: string
  /** place in the train, 0: the great wheel */
  index: number
  role: 'escape' | 'pallet' | 'other'
  xMm: number | null
  yMm: number | null
  /** 0 at the front plate, 1 at the back plate */
  pinionAt: number
  wheelAt: number
  /** from a measured wheel */
  moduleMm: number | null
  /** the plate that is a cock there; empty or not said: none is */
  cock?: string | undefined
}

/** The counts of one train, as far as the movement asks. */
export interface CountedTrain {
  train: string
  arbors: TrainArbor[]
  hourly: number | null
  escape: boolean
  greatTurns: number | null
}

/** An arbor of the map with its counts and turning from the train sheet. */
export type MovementArbor = MapArbor & {
  train: string
  index: number
  role: PlacedArbor['role']
  placed: PlacedArbor
}

/** One train of the movement, from the great wheel up. */
export interface MovementTrain {
  train: string
  arbors: MovementArbor[]
}

/** The trains of a plate map with their counts: the places are the map's, the counts and directions the sheet's. */
export function movementOf(map: { arbors: PlacedArbor[] } | null, sheets: CountedTrain[]): MovementTrain[] {
  return TRAIN_NAMES.flatMap((train) => {
    const placed = (map?.arbors ?? []).filter((a) => a.train === train).sort((a, b) => a.index - b.index)
    if (placed.length === 0) return []
    const sheet = turning(sheets.find((s) => s.train === train))
    return [
      {
        train,
        arbors: placed.map((p) => {
          const counted = sheet?.arbors[p.index]
          return {
            train,
            placed: p,
            name: p.name,
            index: p.index,
            role: p.role,
            at: p.xMm === null || p.yMm === null ? null : { xMm: p.xMm, yMm: p.yMm },
            pinion: counted?.pinion ?? null,
            wheel: counted?.wheel ?? null,
            turn: counted?.turn ?? null,
            pinionAt: p.pinionAt,
            wheelAt: p.wheelAt,
          }
        }),
      },
    ]
  })
}

function turning(sheet: CountedTrain | undefined): TrainSheet | null {
  if (!sheet) return null
  let turns: TrainSheet
  try {
    turns = trainSheet(sheet.arbors, sheet.hourly, sheet.escape, sheet.greatTurns)
  } catch (error) {
    // Counts that can't be are the train sheet's to say; the plates then know none.
    if (error instanceof FieldError) return null
    throw error
  }
  if (sheet.hourly !== null) return turns
  // A strike train has no hourly arbor; its great wheel turns as the going one does, against the hands.
  return {
    ...turns,
    arbors: turns.arbors.map((a, i) => ({ ...a, turn: i % 2 === 0 ? 'anticlockwise' : 'clockwise' })),
  }
}
