import type { FootingChange } from './footing.ts'
import type { Hearing, SideSound, SoundPrint } from '@treadle/core'
import { SHAPE_POINTS } from '@treadle/core/choices'
import { array, boolean, id, line, measured, moment, numbers, only, string, type InferType } from './fields.ts'

/** What one side's ticks sound like. */
const SideSoundKept = only({
  loudnessDb: measured(-200, 50).required(),
  knocks: array(only({ ms: measured(-100, 100).required(), share: measured(0, 100).required() }))
    .max(20)
    .required(),
  shape: numbers(0, 1.001, [SHAPE_POINTS, SHAPE_POINTS]),
  rustleDb: measured(0, 200).required(),
})

/** One listening, to be kept: what was heard, by which analyser, and every beat's time. */
export const NewListening = only({
  id: id(),
  at: moment(),
  pickup: string().oneOf(['microphone', 'file', 'practice']).required(),
  fileName: line(200).defined(),
  purpose: string().oneOf(['observe', 'beat', 'trial', 'in-place']).required(),
  /** which end of the swing the first side's ticks belong to */
  firstSide: string().oneOf(['left', 'right']).nullable().defined(),
  beatsPerHour: measured(1000, 40_000).required(),
  nominalBeatsPerHour: measured(1000, 40_000).required(),
  rateSecondsPerDay: measured(-86_400, 86_400).required(),
  rateStandardError: measured(0, 1e6).required(),
  firstToSecondMs: measured(1, 10_000).required(),
  secondToFirstMs: measured(1, 10_000).required(),
  outOfBeatStandardError: measured(0, 1e4).required(),
  scatterMs: measured(0, 1e4).required(),
  beatsHeard: measured(0, 1e6).integer().required(),
  beatsExpected: measured(0, 1e6).integer().required(),
  rejected: measured(0, 1e6).integer().required(),
  slips: measured(0, 1e5).integer().required(),
  secondsAnalysed: measured(0, 1e6).required(),
  confidence: measured(0, 1).required(),
  analyserVersion: line(20).required(),
  beatTimesS: numbers(-10, 1e6, [0, 60_000]),
  /** how both sides sound, the first side's first; not there in what was kept before that was told */
  sides: array(SideSoundKept).length(2).optional(),
  /** whether its sound will follow */
  hasSound: boolean().required(),
  /** what was changed before it, mm, for the two-reading method; null when nothing was */
  changeMm: measured(-500, 500).nullable().defined().label('What you changed'),
})
export type NewListening = InferType<typeof NewListening>

export type ListeningSummary = Omit<NewListening, 'beatTimesS' | 'sides'> & {
  jobId: string
  who: string
  soundStored: boolean
  /** the clock's semi-arc as it was written down then */
  semiArcDeg: number | null
}

/** How a clock sounded the last time it was here. */
export interface SoundBefore {
  at: string
  firstSide: NewListening['firstSide']
  sides: [SideSound, SideSound]
}

/** How a clock went and sounded when it left its last visit that is over. */
export interface Fingerprint extends SoundPrint {
  at: string
  /** as it was written down of the clock that day; where it was not, as it is now */
  semiArcDeg: number | null
  /** where it stood in beat, as its case was rocked on that visit */
  footing: Pick<FootingChange, 'evenAtDeg' | 'standardError' | 'way'> | null
}

/** A hearing as it is kept. */
export function listeningFrom(
  hearing: Hearing,
  rest: Pick<NewListening, 'id' | 'at' | 'pickup' | 'fileName' | 'purpose' | 'firstSide' | 'hasSound' | 'changeMm'>,
): NewListening {
  return {
    ...rest,
    beatsPerHour: hearing.beatsPerHour,
    nominalBeatsPerHour: hearing.nominalBeatsPerHour,
    rateSecondsPerDay: hearing.rateSecondsPerDay,
    rateStandardError: hearing.rateStandardError,
    firstToSecondMs: hearing.intervalsMs[0],
    secondToFirstMs: hearing.intervalsMs[1],
    outOfBeatStandardError: hearing.outOfBeatStandardError,
    scatterMs: hearing.scatterMs,
    beatsHeard: hearing.beatsHeard,
    beatsExpected: hearing.beatsExpected,
    rejected: Math.max(0, hearing.rejected),
    slips: hearing.slips,
    secondsAnalysed: hearing.secondsAnalysed,
    confidence: hearing.confidence,
    analyserVersion: hearing.analyserVersion,
    beatTimesS: hearing.beats.map((b) => Math.round(b.atS * 1e6) / 1e6),
    sides: hearing.sides,
  }
}
