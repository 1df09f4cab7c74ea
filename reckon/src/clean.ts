import { bathCheck, DEFAULT_BATHS } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, only, string } from './fields.ts'

/** Calculations of cleaning. */
export const CLEAN: Calculation[] = [
  calculation({
    name: 'bath.check',
    title: 'What stays out of a bath',
    about: 'Which parts must stay dry, each with why, and how long the rest may stay.',
    input: only({
      bath: string()
        .oneOf(DEFAULT_BATHS.map((b) => b.key))
        .required()
        .label('Bath'),
      parts: array(only({ name: string().required(), material: string().required(), finish: string().nullable() }))
        .required()
        .label('Parts'),
    }),
    fields: {
      bath: { unit: '', example: 'ammoniated' },
      parts: {
        unit: 'name, material, finish',
        example: [
          { name: 'plates', material: 'brass' },
          { name: 'dial', material: 'brass', finish: 'silvered' },
          { name: 'mainspring', material: 'mainspring' },
        ],
      },
    },
    output: { keepOut: 'name, why', minutes: 'min' },
    run: (i) => ({
      ...bathCheck(
        i.bath,
        i.parts.map((p) => ({ ...p, finish: p.finish ?? undefined })),
      ),
    }),
  }),
]
