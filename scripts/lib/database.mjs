import { startPostgres } from './postgres.mjs'
import { ensureRoles } from './roles.mjs'

/**
 * The workshop's database, by the addresses of those who migrate, serve and back up.
 *
 * DATABASE_URL, where it is set, names another one; whoever it names serves. DATABASE_ADMIN_URL then migrates and
 * restores, DATABASE_BACKUP_URL reads for backups; where they are not given, the one before does it too.
 */
export async function openDatabase(name) {
  const { DATABASE_URL: serve, DATABASE_ADMIN_URL: admin, DATABASE_BACKUP_URL: backup } = process.env
  if (serve) {
    const outside = { serve, admin: admin || serve, backup: backup || admin || serve }
    return { ...outside, own: false, wasRunning: true, isRunning: () => true, stop: () => undefined }
  }
  const cluster = await startPostgres(name)
  const { port, wasRunning, isRunning, stop } = cluster
  return { ...(await ensureRoles(cluster, 'treadle')), own: true, port, wasRunning, isRunning, stop }
}
