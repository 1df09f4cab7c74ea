import type { ToolRow } from '@treadle/contract'
import {
  chooseFile,
  cutsInOrder,
  FILE_FINISHES,
  fileStrokes,
  WORK_MATERIALS,
  WORK_SHAPES,
  type FileWork,
} from '@treadle/core'
import { Group, NativeSelect } from '@mantine/core'
import { Link } from 'react-router'
import { useTable } from '../../data/queries.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useSessionValue } from '../../parts/useSessionValue.ts'

const START: FileWork = { shape: 'flat', roomMm: null, material: 'brass', removeMm: 0.2, finish: 'fine' }

/** Which file to take for a piece of work, in what order, with which stroke and what safe edge. */
export function FileAdviser({ tools }: { tools: ToolRow[] }) {
  const [work, setWork] = useSessionValue<FileWork>('treadle-file-work', START)
  const { data: table } = useTable('ladders')
  const set = (part: Partial<FileWork>) => setWork({ ...work, ...part })
  const files = tools.flatMap((t) =>
    t.kind === 'file' &&
    t.shape !== '' &&
    t.cut !== '' &&
    t.widthMm !== null &&
    t.lengthMm !== null &&
    t.worn !== 'worn'
      ? [
          {
            id: t.id,
            shape: t.shape,
            cut: t.cut,
            widthMm: t.widthMm,
            lengthMm: t.lengthMm,
            keptFor: t.keptFor,
            hard: t.hard,
          },
        ]
      : [],
  )
  const { choice, fits, whyNot } = chooseFile(work, files)
  const words = (id: string) => {
    const t = tools.find((one) => one.id === id)
    return t
      ? `${t.shape}, cut ${t.cut}, ${t.lengthMm ?? '?'} × ${t.widthMm ?? '?'} mm${t.drawer === '' ? '' : `, drawer ${t.drawer}`}`
      : ''
  }
  return (
    <section aria-label="Which file">
      <h2>Which file</h2>
      <Group align="end">
        <NativeSelect
          label="The work is"
          data={[...WORK_SHAPES]}
          value={work.shape}
          onChange={(e) => set({ shape: e.currentTarget.value as FileWork['shape'] })}
        />
        <NativeSelect
          label="In"
          data={[...WORK_MATERIALS]}
          value={work.material}
          onChange={(e) => set({ material: e.currentTarget.value as FileWork['material'] })}
        />
        <Figure
          label="Room for it"
          unit="mm"
          w="7rem"
          value={work.roomMm ?? null}
          min={0.2}
          max={300}
          onKeep={(roomMm) => set({ roomMm })}
        />
        <Figure
          label="To come off"
          unit="mm"
          w="7rem"
          value={work.removeMm}
          min={0}
          max={50}
          onKeep={(removeMm) => set({ removeMm: removeMm ?? 0 })}
        />
        <NativeSelect
          label="Until it is"
          data={[...FILE_FINISHES]}
          value={work.finish}
          onChange={(e) => set({ finish: e.currentTarget.value as FileWork['finish'] })}
        />
      </Group>
      <h3 className={parts.next}>
        {choice === null ? (
          <>
            <Mark state="must" label="none" /> No file of the drawer is for this
          </>
        ) : (
          <>
            <Mark state="sound" label="take" /> Take the {words(choice)}
          </>
        )}
      </h3>
      {fits.length > 1 && <p className="quiet">Also: {fits.slice(1).map(words).join('; ')}.</p>}
      <p>
        Cuts in order: <b>{cutsInOrder(work).join(' → ')}</b>.
      </p>
      <ul className={parts.say}>
        {fileStrokes(work).map((s) => (
          <li key={s}>{s}</li>
        ))}
        <li>Never a bare tang; dress a safe edge on a stone, never on a dry grinder: heat draws its temper.</li>
      </ul>
      {whyNot.length > 0 && (
        <details>
          <summary>Why not the others</summary>
          <ul>
            {whyNot.map(({ id, why }) => (
              <li key={id}>
                {words(id)}: {why}
              </li>
            ))}
          </ul>
        </details>
      )}
      <h3 className={parts.next}>
        Grit ladders{' '}
        <small className="quiet">
          the workshop’s own, <Link to="/tables/ladders">changed here</Link>
        </small>
      </h3>
      <ul>
        {(table?.values.ladders ?? []).map((l) => (
          <li key={l.key}>
            <b>{l.title}</b>: {l.steps}
            {l.remark !== '' && <span className="quiet"> {l.remark}</span>}
          </li>
        ))}
      </ul>
    </section>
  )
}
