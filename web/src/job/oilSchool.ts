import type { JobPage, OilRow, Settings } from '@treadle/contract'

/** How long the oil that went into this clock is trusted: as its pivot oil says, else as the workshop has it. */
export function oilSchoolOf(
  { oilSheets }: Pick<JobPage, 'oilSheets'>,
  oils: OilRow[],
  { oilSchool }: Pick<Settings, 'oilSchool'>,
): Settings['oilSchool'] {
  const school = oils.find((o) => o.id === oilSheets[0]?.pivotOilId)?.school ?? ''
  return school === '' ? oilSchool : school
}
