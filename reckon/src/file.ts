import {
  chooseFile,
  FILE_CUTS,
  FILE_FINISHES,
  FILE_SHAPES,
  KEPT_FOR,
  WORK_MATERIALS,
  WORK_SHAPES,
  type FileCut,
} from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, boolean, mixed, number, only, string } from './fields.ts'

/** Calculations of files. */
export const FILE: Calculation[] = [
  calculation({
    name: 'file.choose',
    title: 'A file for a piece of work',
    about: 'Which file of the drawer, by shape, room, metal, cut and width; why each other is not taken.',
    input: only({
      work: only({
        shape: string().oneOf(WORK_SHAPES).required(),
        roomMm: number(),
        material: string().oneOf(WORK_MATERIALS).required(),
        removeMm: number().required(),
        finish: string().oneOf(FILE_FINISHES).required(),
      }).label('Work'),
      drawer: array(
        only({
          id: string().required(),
          shape: string().oneOf(FILE_SHAPES).required(),
          // 0 to 6 may be given as numbers; 00 can only be words.
          cut: mixed<FileCut | number>()
            .oneOf([...FILE_CUTS, 0, 1, 2, 3, 4, 6])
            .required(),
          widthMm: number().required(),
          lengthMm: number().required(),
          keptFor: string().oneOf(KEPT_FOR).required(),
          hard: boolean(),
        }),
      )
        .required()
        .label('Drawer'),
    }),
    fields: {
      work: {
        unit: 'shape, room in mm, material, mm to remove, finish',
        example: { shape: 'shoulder', roomMm: 8, material: 'brass', removeMm: 0.2, finish: 'fine' },
      },
      drawer: {
        unit: 'mm',
        example: [
          { id: 'a', shape: 'hand', cut: '2', widthMm: 12, lengthMm: 150, keptFor: 'brass' },
          { id: 'b', shape: 'barrette', cut: '2', widthMm: 6, lengthMm: 100, keptFor: 'both' },
        ],
      },
    },
    output: { choice: 'id, or null', fits: 'ids, best first: right cut, then the widest', whyNot: 'id and why' },
    run: ({ work, drawer }) => ({
      ...chooseFile(
        work,
        drawer.map((f) => ({ ...f, cut: String(f.cut) as FileCut })),
      ),
    }),
  }),
]
