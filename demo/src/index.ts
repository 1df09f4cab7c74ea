import { connect, migrate } from '@treadle/server'

export { loadDemo } from './load.ts'

/** Brings a database to the newest form and lets go of it. */
export async function migrateDatabase(databaseUrl: string, migrations: string): Promise<void> {
  const connection = connect(databaseUrl)
  try {
    await migrate(connection, migrations)
  } finally {
    await connection.pool.end()
  }
}
