import { meshMarks, type MeshMark } from '@treadle/core'
import { useJobData } from './useJobData.ts'

/** The marks this clock's work asks for before its plates are parted. */
export function useMarks(): MeshMark[] {
  const { clock } = useJobData()
  const { strikeWork, moon, calendar } = clock.work
  const pendulum = clock.pendulum.beatsPerHour !== null || clock.pendulum.lengthMm !== null
  return meshMarks({ trains: clock.trains, strikeWork, moon, calendar, pendulum })
}

/** Those not made and not waived. */
export function useOpenMarks(): MeshMark[] {
  const { stripMarks } = useJobData()
  return useMarks().filter((m) => !stripMarks.some((made) => made.key === m.key))
}
