import { stockTitle, type StockImport, type StockPreview } from '@treadle/contract'
import { Button, FileButton, Group, Textarea } from '@mantine/core'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useChange } from '../../data/queries.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import styles from '../Drawers.module.css'

type Looked = StockPreview & { kept: StockImport | null }
const SHOWN = 12

/** Lists in and out: a list is looked at first, taken in whole, and can be taken back. */
export function StockList() {
  const change = useChange<Looked>('stock')
  const undo = useChange<StockImport>('stock')
  const [csv, setCsv] = useState('')
  const [looked, setLooked] = useState<Looked | null>(null)
  const [kept, setKept] = useState<StockImport | null>(null)
  const send = (text: string, keep: boolean) =>
    change.mutate(
      { method: 'POST', path: '/stock/lists', body: { id: uuid(), csv: text, keep } },
      {
        onSuccess: (answer) => {
          setLooked(keep ? null : answer)
          setKept(answer.kept)
          if (keep) setCsv('')
        },
      },
    )
  const take = async (file: File | null) => {
    if (!file) return
    const text = await file.text()
    setCsv(text)
    send(text, false)
  }
  return (
    <>
      <h2>Out</h2>
      <p>
        <a href="/api/stock.csv">All drawers as a list</a> <span className="quiet">CSV, sizes in mm</span>
      </p>
      <h2>In</h2>
      <p className={parts.say}>
        A list with a heading: kind, name, material, outside mm, inside mm, length mm, measured mm, count, low at,
        drawer. Commas, semicolons or tabs; decimal points or commas. What is the same thing has its count changed, the
        rest is added; nothing is taken in before you have seen it.
      </p>
      <Group>
        <FileButton accept="text/csv,text/plain,.csv" onChange={(file) => void take(file)}>
          {(props) => (
            <Button variant="default" {...props}>
              Choose a list
            </Button>
          )}
        </FileButton>
        <Button
          variant="default"
          disabled={csv.trim() === ''}
          loading={change.isPending}
          onClick={() => send(csv, false)}
        >
          Look at it
        </Button>
      </Group>
      <Textarea
        label="or paste it here"
        autosize
        minRows={3}
        maxRows={8}
        mt="sm"
        value={csv}
        onChange={(e) => {
          setCsv(e.currentTarget.value)
          setLooked(null)
        }}
      />
      {looked && (
        <section aria-label="What it would do">
          <h3>
            {looked.added.length} added, {looked.changed.length} changed, {looked.same} as they are,{' '}
            {looked.wrong.length} left out
          </h3>
          <ul className={styles.preview}>
            {looked.wrong.slice(0, SHOWN).map((w) => (
              <li key={`${w.line} ${w.message}`}>
                <Mark state="must" label="left out" /> Line {w.line}: {w.message}
              </li>
            ))}
            {looked.changed.slice(0, SHOWN).map(({ before, after }) => (
              <li key={after.id}>
                <Mark state="watch" label="changed" /> {stockTitle(after)}: {before.count} → {after.count}
                {before.drawer !== after.drawer && `, drawer ${before.drawer || 'none'} → ${after.drawer || 'none'}`}
                {before.lowAt !== after.lowAt && `, low at ${before.lowAt} → ${after.lowAt}`}
              </li>
            ))}
            {looked.added.slice(0, SHOWN).map((a) => (
              <li key={a.id}>
                <Mark state="sound" label="added" /> {stockTitle(a)}: {a.count}
              </li>
            ))}
          </ul>
          {[looked.wrong, looked.changed, looked.added].some((l) => l.length > SHOWN) && (
            <p className="quiet">The first {SHOWN} of each are shown.</p>
          )}
          <Button
            mt="sm"
            disabled={looked.added.length + looked.changed.length === 0}
            loading={change.isPending}
            onClick={() => send(csv, true)}
          >
            Take it in
          </Button>
        </section>
      )}
      {kept && (
        <p role="status">
          Taken in: {kept.added} added, {kept.changed} changed.{' '}
          <Button
            variant="default"
            size="compact-md"
            onClick={() =>
              undo.mutate(
                { method: 'POST', path: `/stock/lists/${kept.id}/undo`, body: {} },
                { onSuccess: () => setKept(null) },
              )
            }
          >
            Take the list back
          </Button>
        </p>
      )}
    </>
  )
}
