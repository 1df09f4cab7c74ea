import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The folder of the checkout. */
export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
