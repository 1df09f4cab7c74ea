import { resolve } from 'node:path'
import { writeArchive } from './lib/archive.mjs'
import { withWorkshop } from './lib/workshopClient.mjs'

// npm run backup [-- FILE] [--empty]: the whole workshop in one file.
const args = process.argv.slice(2)
const file = resolve(
  process.env.INIT_CWD ?? '.',
  args.find((a) => !a.startsWith('--')) ?? `treadle-${new Date().toISOString().slice(0, 16).replace(':', '')}.jsonl.gz`,
)
try {
  const name = args.includes('--empty') ? 'empty' : 'workshop'
  const rows = await withWorkshop(name, 'backup', (client) => writeArchive(client, file))
  console.log(`The workshop is in ${file}, ${rows} rows`)
} catch (error) {
  console.error(`No backup was made: ${error.message}`)
  process.exitCode = 1
}
