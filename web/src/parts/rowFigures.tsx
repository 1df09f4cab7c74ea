import type { ReactNode } from 'react'
import { Figure } from './Figure.tsx'
import type { RowSchema } from './fieldWords.ts'

/** The fields of a row that hold a figure, or none yet. */
type FigureKey<R> = { [K in keyof R & string]: R[K] extends number | null ? K : never }[keyof R & string]

/** Figures of a row by their keys, each kept as it is left: `draftOf` says of which row what is half typed is. */
export function rowFigures<R>(
  schema: RowSchema,
  row: R,
  draftOf: string,
  onSet: (part: Partial<R>) => void,
): (key: FigureKey<R>, label: string, unit?: string, beside?: (number | null)[]) => ReactNode {
  return (key, label, unit = 'mm', beside = []) => (
    <Figure
      key={key}
      label={label}
      draftOf={draftOf}
      unit={unit}
      value={row[key] as number | null}
      of={[schema, key]}
      beside={beside}
      onKeep={(value) => onSet({ [key]: value } as Partial<R>)}
    />
  )
}
