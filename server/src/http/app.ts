import express, { type Express, type Request, type RequestHandler, type Response, type Router } from 'express'
import helmet from 'helmet'
import { existsSync, readFileSync } from 'node:fs'
import type { ServerResponse } from 'node:http'
import { join } from 'node:path'
import { constants } from 'node:zlib'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import sirv from 'sirv'
import compression from 'compression'
import { sql } from 'drizzle-orm'
import { careRoutes } from '../care/routes.ts'
import { yearRoutes } from '../care/year.ts'
import { cleanRoutes } from '../clean/routes.ts'
import { computerClockRoutes } from '../computerClock/routes.ts'
import { clockRoutes } from '../clocks/routes.ts'
import type { Database } from '../db/connect.ts'
import { donorRoutes } from '../donors/routes.ts'
import { estimateRoutes } from '../estimates/routes.ts'
import { invoiceRoutes } from '../invoices/routes.ts'
import { findRoutes } from '../find/routes.ts'
import { holeRoutes } from '../holes/routes.ts'
import { jobRoutes } from '../jobs/routes.ts'
import { journalRoutes } from '../journal/routes.ts'
import { listeningRoutes } from '../listenings/routes.ts'
import { mendRoutes } from '../mend/routes.ts'
import { nowRoutes } from '../now/routes.ts'
import { oilRoutes } from '../oils/routes.ts'
import { observationRoutes } from '../observations/routes.ts'
import { ownerRoutes } from '../owners/routes.ts'
import { peopleRoutes } from '../people/routes.ts'
import { receiver, UPLOAD_LIMITS, uploadsAMinute, type UploadLimits } from '../files/receive.ts'
import { photoRoutes } from '../photos/routes.ts'
import { plateRoutes } from '../plates/routes.ts'
import { pendulumRoutes } from '../pendulum/routes.ts'
import { rateRoutes } from '../rate/routes.ts'
import { thermometerRoutes } from '../rate/thermometer.ts'
import { setRoutes } from '../set/routes.ts'
import { settingsRoutes } from '../settings/routes.ts'
import { stockRoutes } from '../stock/routes.ts'
import { stripRoutes } from '../strip/routes.ts'
import { tableRoutes } from '../tables/routes.ts'
import { toolRoutes } from '../tools/routes.ts'
import { trainRoutes } from '../trains/routes.ts'
import { watchRoutes } from '../watches/routes.ts'
import { wheelRoutes } from '../wheels/routes.ts'
import { archiveRoutes } from '../archive/routes.ts'
import { backupRoutes } from '../backups/routes.ts'
import { diskGuard, freeBytesOf } from './diskGuard.ts'
import { guard } from './guard.ts'
import { bodyInTime } from './inTime.ts'
import { personAtTheBench } from './person.ts'
import { onError, sendProblem } from './problem.ts'
import { Refused } from './refusals.ts'
import { apiRouter } from './router.ts'

export interface AppOptions {
  db: Database
  version: string
  logger: Logger
  /** folder of the built pages; none in tests of the API */
  pages?: string
  extraHosts?: string[]
  /** the present moment, where it is not the computer's */
  now?: () => Date
  /** folder of the daily backups, to tell of them; none where nobody makes any */
  backups?: string | undefined
  uploads?: Partial<UploadLimits>
  /** folder on the disk that the database writes to, or how many bytes of it are free; none where it stands elsewhere */
  disk?: string | (() => Promise<number>) | undefined
  /** a request's JSON must be there whole within so many ms */
  bodyMs?: number
}

/** The one web server: the API under /api, and the pages. */
export function makeApp(options: AppOptions): Express {
  const { db, logger, pages, extraHosts, now, disk, bodyMs = 20_000 } = options
  const app = express()
  const begins = pages === undefined ? null : beginsWith(pages)
  app.disable('x-powered-by')
  app.enable('case sensitive routing')
  // Nothing of the API is kept by a browser, so nothing of it is compared.
  app.disable('etag')
  app.locals.now = now
  app.use(pinoHttp({ logger, autoLogging: { ignore: (req) => !req.url?.startsWith('/api') }, serializers: LOGGED }))
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          // The component library sets inline styles.
          styleSrc: ["'self'", "'unsafe-inline'"],
          fontSrc: ["'self'"],
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
  app.use(
    '/api',
    (_req, res, next) => {
      res.set('Cache-Control', 'no-store')
      // A page that was open before the shop got a new version sees by this that it is older.
      if (begins !== null) res.set('X-Pages', begins)
      next()
    },
    compression({ filter: worthIt, brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } } }),
    bodyInTime(bodyMs),
    ...(disk === undefined ? [] : [diskGuard(typeof disk === 'string' ? () => freeBytesOf(disk) : disk)]),
    express.json({ limit: '1mb', type: 'application/json' }),
    personAtTheBench(db),
    apiRoutes(options),
  )
  if (pages !== undefined && existsSync(pages)) servePages(app, pages)
  app.use(onError)
  return app
}

/** Streams are sent word by word, and sounds and pictures are as small as they can be. */
function worthIt(req: Request, res: Response): boolean {
  return !/event-stream|ndjson/.test(String(res.getHeader('Content-Type'))) && compression.filter(req, res)
}

/** A request as the log tells it: not who asked, nor what for, nor a secret, in whatever letters it came. */
const LOGGED = {
  req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({ id, method, url: pathToLog(url) }),
  res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}(\.\w+)?$/i
/** No word of an address of ours is so long; a secret is longer. */
const LONGEST_WORD = 24

/** The path alone, what may be a secret left out. */
function pathToLog(url: string): string {
  const [path = ''] = url.split('?')
  return path
    .split('/')
    .slice(0, 12)
    .map((part) => (part.length > LONGEST_WORD && !UUID.test(part) ? '…' : part))
    .join('/')
}

function apiRoutes({ db, version, backups, uploads }: AppOptions): Router {
  const limits = { ...UPLOAD_LIMITS, ...uploads }
  const receive = receiver(limits)
  const aMinute = uploadsAMinute(limits)
  return apiRouter()
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
    .use(
      jobRoutes(db),
      clockRoutes(db),
      holeRoutes(db),
      rateRoutes(db),
      thermometerRoutes(db),
      pendulumRoutes(db),
      listeningRoutes(db, receive, aMinute),
    )
    .use(watchRoutes(db, receive, aMinute))
    .use(
      observationRoutes(db),
      trainRoutes(db),
      estimateRoutes(db),
      invoiceRoutes(db),
      careRoutes(db),
      yearRoutes(db),
      stripRoutes(db),
      cleanRoutes(db),
    )
    .use(plateRoutes(db), mendRoutes(db), wheelRoutes(db), stockRoutes(db))
    .use(donorRoutes(db, receive, aMinute), toolRoutes(db), oilRoutes(db), setRoutes(db))
    .use(findRoutes(db), tableRoutes(db), nowRoutes(db))
    .use(
      photoRoutes(db, receive, aMinute),
      journalRoutes(db),
      ownerRoutes(db),
      peopleRoutes(db),
      settingsRoutes(db),
      backupRoutes(backups),
      archiveRoutes(db, receive, limits, aMinute, version),
      computerClockRoutes(),
    )
    .use((req, res) => {
      const title = `There is nothing at ${req.method} ${req.originalUrl.split('?')[0] ?? ''}.`
      sendProblem(res, new Refused('not-found', { title }))
    })
}

/** The file that the pages begin with: each build has its own. */
function beginsWith(pages: string): string | null {
  const index = join(pages, 'index.html')
  return existsSync(index)
    ? (/<script[^>]*src="\/assets\/([^"]+)"/.exec(readFileSync(index, 'utf8'))?.[1] ?? null)
    : null
}

/** Built pages, as they were compressed when they were built; whatever address is none of their files is a page's own. */
function servePages(app: Express, pages: string): void {
  const compressed = { brotli: true, gzip: true }
  const notFound: RequestHandler = (_req, res) => sendProblem(res, new Refused('not-found'))
  app.get('/assets/{*file}', sirv(pages, { ...compressed, immutable: true, maxAge: 31_536_000 }), notFound)
  app.get(
    '/{*path}',
    sirv(pages, { ...compressed, single: true, ignores: false, etag: true, setHeaders: noCache }),
    notFound,
  )
}

/** It is asked each time whether it is still so. */
function noCache(res: ServerResponse): void {
  res.setHeader('Cache-Control', 'no-cache')
}
