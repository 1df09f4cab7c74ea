import { FILE_CUTS, FILE_SHAPES, KEPT_FOR } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  line,
  measured,
  only,
  requiredLine,
  ruled,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'

export const TOOL_KINDS = ['file', 'abrasive', 'stone'] as const
export type ToolKind = (typeof TOOL_KINDS)[number]
export const TOOL_TITLES: Record<ToolKind, string> = { file: 'Files', abrasive: 'Abrasives', stone: 'Stones' }

/** A file, an abrasive or a stone of the workshop. */
export const ToolChange = ruled(
  only({
    id: id(),
    version: version(),
    kind: string().oneOf(TOOL_KINDS).required().label('Kind'),
    name: line(80).defined().label('Name'),
    /** a file's section, or a stone's */
    shape: string()
      .oneOf(['', ...FILE_SHAPES])
      .defined()
      .label('Shape'),
    cut: string()
      .oneOf(['', ...FILE_CUTS])
      .defined()
      .label('Cut'),
    /** of an abrasive or a stone */
    grit: measured(10, 100_000).integer().nullable().defined().label('Grit'),
    /** without the tang */
    lengthMm: measured(5, 1000).nullable().defined().label('Length'),
    widthMm: measured(0.2, 300).nullable().defined().label('Width'),
    keptFor: string().oneOf(KEPT_FOR).required().label('Kept for'),
    hard: boolean().required().label('For hard steel'),
    worn: string().oneOf(['new', 'good', 'worn']).required().label('How worn'),
    drawer: line(40).defined().label('Drawer'),
    note: text(300).defined().label('Note'),
  }),
  [
    'file',
    'File: it needs its shape, cut, length and width',
    (t) => t.kind !== 'file' || (t.shape !== '' && t.cut !== '' && t.lengthMm !== null && t.widthMm !== null),
  ],
  ['grit', 'Grit: an abrasive or a stone needs it', (t) => t.kind === 'file' || t.grit !== null],
)
export type ToolChange = InferType<typeof ToolChange>
export type ToolRow = ToolChange

export function blankTool(id: string, kind: ToolKind): ToolChange {
  return {
    id,
    version: 0,
    kind,
    name: '',
    shape: kind === 'file' ? 'hand' : '',
    cut: kind === 'file' ? '2' : '',
    grit: kind === 'file' ? null : 800,
    lengthMm: kind === 'file' ? 150 : null,
    widthMm: kind === 'file' ? 12 : null,
    keptFor: 'both',
    hard: false,
    worn: 'good',
    drawer: '',
    note: '',
  }
}

/** The workshop's own ladders of grits, from coarse to fine. */
export const Ladders = only({
  ladders: array(
    only({
      key: requiredLine(40),
      title: requiredLine(80).label('Recipe'),
      steps: requiredLine(200).label('Steps'),
      remark: line(200).defined().label('Remark'),
    }),
  )
    .max(40)
    .required()
    .label('Recipes'),
})
export type Ladders = InferType<typeof Ladders>

export const DEFAULT_LADDERS: Ladders = {
  ladders: [
    {
      key: 'pivot-papers',
      title: 'Pivot, papers',
      steps: '800 → 2000, then alumina paste',
      remark: 'On glass or a flat backing.',
    },
    { key: 'pivot-fine', title: 'Pivot, three papers', steps: '600 → 1000 → 2500, then alumina paste', remark: '' },
    {
      key: 'pallets',
      title: 'Pallet faces',
      steps: '1000 → 3000 → 6000 stone, then paste on boxwood',
      remark: 'Flat: no rounded edge where the tooth lets go.',
    },
    {
      key: 'brass-flat',
      title: 'Brass, flat',
      steps: '400 → 800 → 1200, then a soft brush',
      remark: 'Not over maker’s marks.',
    },
  ],
}
