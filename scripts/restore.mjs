import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { readArchive } from './lib/archive.mjs'
import { withWorkshop } from './lib/workshopClient.mjs'

// npm run restore -- FILE [--empty] [--older]: brings a backup back into an empty workshop.
const args = process.argv.slice(2)
const name = args.find((a) => !a.startsWith('--'))
const file = name && resolve(process.env.INIT_CWD ?? '.', name)
if (!file || !existsSync(file)) {
  console.error(file ? `There is no file ${file}.` : 'Name the backup: npm run restore -- FILE')
  process.exit(2)
}
try {
  const rows = await withWorkshop(args.includes('--empty') ? 'empty' : 'workshop', 'admin', (client) =>
    readArchive(client, file, { older: args.includes('--older') }),
  )
  console.log(`Restored ${rows} rows from ${file}`)
} catch (error) {
  console.error(error.message)
  process.exitCode = 1
}
