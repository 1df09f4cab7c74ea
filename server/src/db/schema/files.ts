import { boolean, customType, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import { moment } from './columns.ts'
import { byWhom } from './people.ts'
import { ofJob } from './jobs.ts'

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })

/** Bytes of a photo or a sound, in chunks so that none is ever held whole. */
export const files = pgTable('files', {
  id: uuid('id').primaryKey(),
  type: text('type').notNull(),
  size: integer('size').notNull(),
  /** of an archive that is being taken in: nothing shows it yet, and it goes if that is broken off */
  staged: boolean('staged').notNull().default(false),
})

export const fileChunks = pgTable(
  'file_chunks',
  {
    fileId: uuid('file_id')
      .notNull()
      .references(() => files.id, { onDelete: 'cascade' }),
    part: integer('part').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.fileId, t.part] })],
)

export const photos = pgTable(
  'photos',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    caption: text('caption').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    takenAt: moment('taken_at').notNull(),
    originalId: uuid('original_id')
      .notNull()
      .references(() => files.id),
    screenId: uuid('screen_id')
      .notNull()
      .references(() => files.id),
    /** small, for lists; photos from before there were any have none */
    thumbId: uuid('thumb_id').references(() => files.id),
    /** of the picture as it was sent, SHA-256; photos from before have none */
    digest: text('digest'),
    who: text('who').notNull().default(''),
    whoId: byWhom().whoId,
  },
  (t) => [index('photos_job').on(t.jobId)],
)
