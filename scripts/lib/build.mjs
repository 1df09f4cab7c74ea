import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { bundle, newest } from './bundle.mjs'
import { ROOT } from './root.mjs'
import { gather } from './run.mjs'

/** The folder of the built pages. */
export const PAGES = join(ROOT, 'web', 'dist')
const STAMP = join(PAGES, '.built')
const WEB_SOURCES = [
  'core/src',
  'reckon/src',
  'contract/src',
  'web/src',
  'web/index.html',
  'web/vite.config.ts',
  'package-lock.json',
]
const SERVER_SOURCES = ['core/src', 'contract/src', 'server/src', 'demo/src', 'package-lock.json']

/** Builds the pages when their sources are newer. */
export async function buildPages() {
  const latest = String(newest(WEB_SOURCES))
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === latest) return
  console.error('Building the pages…')
  const vite = [join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn']
  const { status, output } = await gather(process.execPath, vite, { cwd: join(ROOT, 'web') })
  if (status !== 0) throw new Error(`The pages can’t be built.\n${output}`)
  writeFileSync(STAMP, latest)
}

/** Bundles a server-side entry; returns its file URL. */
export function buildServer(entry, name) {
  return bundle(entry, name, SERVER_SOURCES)
}
