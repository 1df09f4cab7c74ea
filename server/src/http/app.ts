import express, { Router, type Express } from 'express'
import helmet from 'helmet'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import { sql } from 'drizzle-orm'
import { cleanRoutes } from '../clean/routes.ts'
import { clockRoutes } from '../clocks/routes.ts'
import type { Database } from '../db/connect.ts'
import { estimateRoutes } from '../estimates/routes.ts'
import { findRoutes } from '../find/routes.ts'
import { holeRoutes } from '../holes/routes.ts'
import { jobRoutes } from '../jobs/routes.ts'
import { journalRoutes } from '../journal/routes.ts'
import { listeningRoutes } from '../listenings/routes.ts'
import { mendRoutes } from '../mend/routes.ts'
import { nowRoutes } from '../now/routes.ts'
import { observationRoutes } from '../observations/routes.ts'
import { peopleRoutes } from '../people/routes.ts'
import { photoRoutes } from '../photos/routes.ts'
import { plateRoutes } from '../plates/routes.ts'
import { rateRoutes } from '../rate/routes.ts'
import { settingsRoutes } from '../settings/routes.ts'
import { stockRoutes } from '../stock/routes.ts'
import { stripRoutes } from '../strip/routes.ts'
import { tableRoutes } from '../tables/routes.ts'
import { trainRoutes } from '../trains/routes.ts'
import { guard } from './guard.ts'
import { onError, sendProblem } from './problem.ts'

export interface AppOptions {
  db: Database
  version: string
  logger: Logger
  /** folder of the built pages; none in tests of the API */
  pages?: string
  extraHosts?: string[]
  /** the present moment, where it is not the computer's */
  now?: () => Date
}

/** The one web server: the API under /api, and the pages. */
export function makeApp({ db, version, logger, pages, extraHosts, now }: AppOptions): Express {
  const app = express()
  app.disable('x-powered-by')
  app.locals.now = now
  app.use(pinoHttp({ logger, autoLogging: { ignore: (req) => !req.url?.startsWith('/api') } }))
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          // The component library sets inline styles.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          mediaSrc: ["'self'", 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          // Served over plain http on this machine.
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  )
  app.use(guard(extraHosts))
  app.use('/api', express.json({ limit: '1mb', type: 'application/json' }), apiRoutes(db, version))
  if (pages !== undefined && existsSync(pages)) servePages(app, pages)
  app.use(onError)
  return app
}

function apiRoutes(db: Database, version: string): Router {
  return Router()
    .get('/health', async (req, res) => {
      const database = await db.execute(sql`select 1`).then(
        () => true,
        (error: unknown) => {
          req.log.warn({ err: error }, 'database does not answer')
          return false
        },
      )
      res.status(database ? 200 : 503).json({ ok: database, database, version })
    })
    .use(jobRoutes(db), clockRoutes(db), holeRoutes(db), rateRoutes(db), listeningRoutes(db))
    .use(observationRoutes(db), trainRoutes(db), estimateRoutes(db), stripRoutes(db), cleanRoutes(db))
    .use(plateRoutes(db), mendRoutes(db), stockRoutes(db))
    .use(findRoutes(db), tableRoutes(db), nowRoutes(db))
    .use(photoRoutes(db), journalRoutes(db), peopleRoutes(db), settingsRoutes(db))
    .use((req, res) => {
      sendProblem(res, 404, 'not-found', `There is nothing at ${req.method} ${req.originalUrl.split('?')[0] ?? ''}.`)
    })
}

function servePages(app: Express, pages: string): void {
  app.use('/assets', express.static(join(pages, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }))
  app.use(express.static(pages, { index: false, maxAge: 0 }))
  app.get('/{*path}', (_req, res) => {
    res.set('Cache-Control', 'no-cache').sendFile(join(pages, 'index.html'))
  })
}
