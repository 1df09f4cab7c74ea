import { EscapementSheetChange } from '@treadle/contract'
import { missingMeasures } from '@treadle/core'
import { Button } from '@mantine/core'
import { memo } from 'react'
import { wordsOf } from '../../parts/fieldWords.ts'
import parts from '../../parts/parts.module.css'
import { rowFigures } from '../../parts/rowFigures.tsx'

const WORDS = wordsOf(EscapementSheetChange)

/** The few measures that the wheel and the pallets are drawn from. */
export const Measures = memo(function Measures({
  sheet,
  onSet,
  onTap,
}: {
  sheet: EscapementSheetChange
  onSet: (part: Partial<EscapementSheetChange>) => void
  onTap: (tapping: boolean) => void
}) {
  const field = rowFigures(EscapementSheetChange, sheet, 'escapement', onSet)
  const missing = missingMeasures(sheet)
  return (
    <>
      <h3 className={parts.next}>Its measures</h3>
      <div className={parts.fields}>
        {field('teeth', 'Teeth', '')}
        {field('tipRadiusMm', 'Tips from the arbor')}
        {field('centreDistanceMm', 'Arbors apart')}
        {field('swingDeg', 'Swing either way', '°')}
        {sheet.kind !== 'points' && (
          <>
            {field('spannedSpaces', 'Spaces spanned', '')}
            {field('palletMm', sheet.kind === 'pin-pallet' ? 'Pin, across' : 'Pallet, thick')}
            {field('acrossMm', 'Across the edges')}
            {field('liftDeg', 'Lift of a face', '°')}
            {sheet.kind === 'dead-beat' && field('lockDeg', 'Lock', '°')}
          </>
        )}
      </div>
      {missing.length > 0 && (
        <p className={parts.say}>
          Still to measure: {missing.map((key) => (WORDS[key]?.label ?? key).toLowerCase()).join(', ')}.
        </p>
      )}
      {sheet.kind === 'points' && (
        <Button variant="default" onClick={() => onTap(true)}>
          {sheet.palletEntry.length > 1 ? 'Tap the pallets anew' : 'Tap the pallets on a photo'}
        </Button>
      )}
    </>
  )
})
