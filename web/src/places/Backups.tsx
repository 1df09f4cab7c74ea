import { useState } from 'react'
import { Fieldset } from '@mantine/core'
import { useBackups } from '../data/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import { Mark } from '../parts/Mark.tsx'
import { count, whenShort } from '../parts/say.ts'
import styles from './SettingsPage.module.css'

/** Older than this the last one is worth a word: one is made each day while the workshop runs. */
const LATE_MS = 36 * 3_600_000

/** The daily backups: when the last one was made, that it failed if it did, and how one is brought back. */
export function Backups() {
  const [now] = useState(() => Date.now())
  return (
    <Fieldset legend="Backups">
      <Loaded query={useBackups()}>
        {({ folder, kept, failed }) => {
          if (folder === null)
            return (
              <p>
                Nobody makes them here: this server was not started by <code>npm start</code>. Make one with{' '}
                <code>npm run backup</code>.
              </p>
            )
          const [last] = kept
          const late = last !== undefined && now - Date.parse(last.at) > LATE_MS
          return (
            <>
              {failed && (
                <p role="alert">
                  <Mark state="danger" label="failed" /> The last try, {whenShort(failed.at)}, failed: {failed.why}
                </p>
              )}
              {last ? (
                <p>
                  <Mark state={late ? 'watch' : 'sound'} label={late ? 'late' : 'made'} /> The last was made{' '}
                  {whenShort(last.at)}, {megabytes(last.bytes)}; {count(kept.length, 'is kept', 'are kept')} in{' '}
                  <code className={styles.path}>{folder}</code>.
                </p>
              ) : (
                <p>The first is made within minutes of the start.</p>
              )}
              <p className="quiet">
                Copy them to another disk now and then: a backup beside the workshop burns with it. One is brought back
                into an empty workshop, all or nothing:
              </p>
              <pre className={styles.command}>
                npm run restore -- {last ? `${folder}/${last.name}` : 'FILE'} --empty
              </pre>
              <p className="quiet">
                Then <code>npm start -- --empty</code> shows it.
              </p>
            </>
          )
        }}
      </Loaded>
    </Fieldset>
  )
}

function megabytes(bytes: number): string {
  return bytes < 100_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1e6).toFixed(1)} MB`
}
