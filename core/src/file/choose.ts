import { FieldError, requirePositive, requireWithin } from '../check/require.ts'

export const FILE_SHAPES = ['hand', 'barrette', 'three-square', 'half-round', 'round', 'square', 'slitting'] as const
export type FileShape = (typeof FILE_SHAPES)[number]
/** From the coarsest to the finest; a guide, since a shorter file is finer at the same number. */
export const FILE_CUTS = ['00', '0', '1', '2', '3', '4', '6'] as const
export type FileCut = (typeof FILE_CUTS)[number]
export const WORK_SHAPES = ['flat', 'shoulder', 'inside corner', 'inside curve', 'slot', 'round hole'] as const
export type WorkShape = (typeof WORK_SHAPES)[number]
export const WORK_MATERIALS = ['brass', 'steel', 'hardened steel'] as const
export const FILE_FINISHES = ['coarse', 'fine', 'ready to polish'] as const
export type FileFinish = (typeof FILE_FINISHES)[number]
export const KEPT_FOR = ['brass', 'steel', 'both'] as const

export interface FileWork {
  shape: WorkShape
  /** how wide the place is, mm; a file must go in */
  roomMm?: number | null
  material: (typeof WORK_MATERIALS)[number]
  removeMm: number
  finish: FileFinish
}

export interface DrawerFile {
  id: string
  shape: FileShape
  cut: FileCut
  widthMm: number
  lengthMm: number
  keptFor: (typeof KEPT_FOR)[number]
  hard?: boolean | null
}

export interface FileChoice {
  choice: string | null
  fits: string[]
  whyNot: { id: string; why: string }[]
}

const SHAPES_FOR: Record<WorkShape, FileShape[]> = {
  flat: ['hand', 'barrette'],
  shoulder: ['hand', 'barrette'],
  'inside corner': ['barrette', 'three-square', 'square'],
  'inside curve': ['half-round', 'round'],
  slot: ['slitting', 'hand', 'square'],
  'round hole': ['round', 'half-round'],
}

/** The cut a finish asks for: a beginner’s set is 0, 2 and 4. */
const RIGHT_CUT: Record<FileFinish, FileCut> = { coarse: '0', fine: '2', 'ready to polish': '4' }
/** More than this to come off, mm, and the coarsest is as right as the next. */
const MUCH_MM = 1

/**
 * The file of the drawer for a piece of work, those that would do, best first, and why each other does not.
 *
 * The shape must reach the place, the file go into it, and be kept for the metal; hardened steel asks for a hard one.
 * A cut one step from the right one does, and comes after it; of the same cut the widest is best: a small file makes
 * waves.
 *
 * @throws FieldError for figures that can’t be
 */
export function chooseFile(work: FileWork, drawer: DrawerFile[]): FileChoice {
  requireWithin('work.removeMm', work.removeMm, 0, 50)
  if (work.roomMm != null) requirePositive('work.roomMm', work.roomMm)
  const whyNot: FileChoice['whyNot'] = []
  const fits: { id: string; off: number; widthMm: number }[] = []
  drawer.forEach((file, i) => {
    requirePositive(`drawer[${i}].widthMm`, file.widthMm)
    requirePositive(`drawer[${i}].lengthMm`, file.lengthMm)
    if (!FILE_CUTS.includes(file.cut))
      throw new FieldError(`drawer[${i}].cut`, file.cut, `it must be one of ${FILE_CUTS.join(', ')}`)
    const why = whyNotThis(file, work)
    if (why === null) fits.push({ id: file.id, off: Math.abs(offCut(file, work)), widthMm: file.widthMm })
    else whyNot.push({ id: file.id, why })
  })
  fits.sort((a, b) => a.off - b.off || b.widthMm - a.widthMm)
  return { choice: fits[0]?.id ?? null, fits: fits.map((f) => f.id), whyNot }
}

/** How many steps finer (+) or coarser (−) a file is than the work asks for. */
function offCut({ cut }: DrawerFile, { finish, removeMm }: FileWork): number {
  if (finish === 'coarse' && cut === '00' && removeMm > MUCH_MM) return 0
  return FILE_CUTS.indexOf(cut) - FILE_CUTS.indexOf(RIGHT_CUT[finish])
}

function whyNotThis(file: DrawerFile, work: FileWork): string | null {
  if (!SHAPES_FOR[work.shape].includes(file.shape)) return `${AN[file.shape]} does not reach ${PLACES[work.shape]}.`
  if (work.roomMm != null && file.widthMm > work.roomMm)
    return `It is ${file.widthMm} mm wide; there is room for ${work.roomMm} mm.`
  if (work.material === 'hardened steel' && file.hard !== true)
    return 'Hardened steel would blunt it: it asks for a hard file.'
  const metal = work.material === 'brass' ? 'brass' : 'steel'
  if (file.keptFor !== 'both' && file.keptFor !== metal) return `It is kept for ${file.keptFor}.`
  const off = offCut(file, work)
  if (Math.abs(off) > 1)
    return `Cut ${file.cut} is too ${off > 0 ? 'fine' : 'coarse'}; ${RIGHT_CUT[work.finish]} is right.`
  return null
}

const AN: Record<FileShape, string> = {
  hand: 'A hand file',
  barrette: 'A barrette',
  'three-square': 'A three-square file',
  'half-round': 'A half-round file',
  round: 'A round file',
  square: 'A square file',
  slitting: 'A slitting file',
}
const PLACES: Record<WorkShape, string> = {
  flat: 'along a flat',
  shoulder: 'into a shoulder',
  'inside corner': 'into an inside corner',
  'inside curve': 'round an inside curve',
  slot: 'into a slot',
  'round hole': 'into a round hole',
}

/** The cuts to go through for a finish, coarsest first: each takes off what the one before it left. */
export function cutsInOrder({ finish, removeMm }: Pick<FileWork, 'finish' | 'removeMm'>): FileCut[] {
  const all: FileCut[] = [...(removeMm > MUCH_MM ? (['00'] as const) : []), ...(removeMm > 0.1 ? (['0'] as const) : [])]
  if (finish === 'coarse') return all.length > 0 ? all : ['0']
  return finish === 'fine' ? [...all, '2'] : [...all, ...(removeMm > 0.02 ? (['2'] as const) : []), '4']
}

/** How the work is filed: the strokes and the safe edge, in the order in which they are minded. */
export function fileStrokes({ shape, material }: Pick<FileWork, 'shape' | 'material'>): string[] {
  return [
    ...(shape === 'flat'
      ? ['Cross two strokes, one at about 70° and one at about 50° to the edge, so that it does not chatter.']
      : []),
    ...(shape === 'shoulder'
      ? [
          'Turn the safe edge to the shoulder. Where it has none, dress one edge flat on a fine stone, 1000 and then 6000.',
        ]
      : []),
    ...(shape === 'inside corner'
      ? ['Let the blunt edges of the three-square, dressed flat on a fine stone, lie in the corner.']
      : []),
    ...(shape === 'inside curve' || shape === 'round hole'
      ? ['Roll the file as it goes forward, so that it leaves no flats.']
      : []),
    ...(shape === 'slot' ? ['Straight through, both hands level; look along it against the light.'] : []),
    ...(material === 'hardened steel'
      ? ['Try a corner first: a file that slides off it is no file for it; take a stone.']
      : []),
    'Use the largest the work allows: a small file makes waves. Sight along its slight belly, and let it lie where you file.',
    'Press on the way forward only; brush it after every few strokes, chalk it for brass.',
  ]
}
