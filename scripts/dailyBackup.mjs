import { writeArchive } from './lib/archive.mjs'
import { makeDaily } from './lib/dailyBackups.mjs'

// What npm start runs once a day, in a process of its own so that the workshop's memory and patience are left alone.
// DATABASE_BACKUP_URL says of what, the argument in which folder.
const { default: pg } = await import('pg')
const [folder] = process.argv.slice(2)
const client = new pg.Client({ connectionString: process.env.DATABASE_BACKUP_URL })
try {
  await client.connect()
  const { rows } = await client.query('select "values" from settings where id = 1')
  const { backupDays = 7, backupWeeks = 4 } = rows[0]?.values ?? {}
  const kept = { days: backupDays, weeks: backupWeeks }
  await makeDaily(folder, new Date(), kept, (file) => writeArchive(client, file))
} catch (error) {
  console.error(`The daily backup failed: ${error.message}`)
  process.exitCode = 1
} finally {
  await client.end()
}
