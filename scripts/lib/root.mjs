import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The folder of the checkout. */
export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..')

/** The folder that holds the workshop's data; TREADLE_DATA names another. */
export const DATA = process.env.TREADLE_DATA || join(ROOT, 'data')
