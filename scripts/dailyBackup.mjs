import { writeArchive } from './lib/archive.mjs'
import { makeDaily } from './lib/dailyBackups.mjs'
import { triedAgain, withClient } from './lib/workshopClient.mjs'

// What npm start runs once a day, in a process of its own so that the workshop's memory and patience are left alone.
// DATABASE_BACKUP_URL says of what, the argument in which folder.
const [folder] = process.argv.slice(2)
try {
  await triedAgain(() => withClient(process.env.DATABASE_BACKUP_URL, daily))
} catch (error) {
  console.error(`The daily backup failed: ${error.message}`)
  process.exitCode = 1
}

async function daily(client) {
  const { rows } = await client.query('select "values" from settings where id = 1')
  const { backupDays = 7, backupWeeks = 4 } = rows[0]?.values ?? {}
  const kept = { days: backupDays, weeks: backupWeeks }
  await makeDaily(folder, new Date(), kept, (file) => writeArchive(client, file))
}
