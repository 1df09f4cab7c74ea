import type { BackupsKept } from '@treadle/contract'
import type { Router } from 'express'
import { readdir, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { apiRouter } from '../http/router.ts'

/** What whoever makes the daily backups leaves in their folder besides them: how the last one ended. */
const LAST = 'last.json'

/** The daily backups, to be told of. They are made and brought back by commands, never by a page. */
export function backupRoutes(folder?: string): Router {
  return apiRouter().get('/backups', async (_req, res) => {
    res.json(folder === undefined ? { folder: null, kept: [], failed: null } : await keptIn(folder))
  })
}

async function keptIn(folder: string): Promise<BackupsKept> {
  const names = await readdir(folder).catch(() => [])
  const kept = await Promise.all(
    names
      .filter((name) => name.endsWith('.jsonl.gz'))
      .map(async (name) => {
        const { mtime, size } = await stat(join(folder, name))
        return { name, at: mtime.toISOString(), bytes: size }
      }),
  )
  kept.sort((a, b) => b.at.localeCompare(a.at))
  const last = await readFile(join(folder, LAST), 'utf8').catch(() => null)
  const { failed } = (last === null ? { failed: null } : JSON.parse(last)) as Pick<BackupsKept, 'failed'>
  return { folder, kept, failed }
}
