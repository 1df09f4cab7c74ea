import { blankTool, TOOL_KINDS, TOOL_TITLES, ToolChange, type ToolKind, type ToolRow } from '@treadle/contract'
import { FILE_CUTS, FILE_SHAPES, KEPT_FOR } from '@treadle/core'
import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core'
import { useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useTools } from '../../data/queries.ts'
import { Columns, type Column } from '../../parts/Columns.tsx'
import { Loaded } from '../../parts/Loading.tsx'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { ChangeRow } from './ChangeRow.tsx'
import { DrawerForm } from './DrawerForm.tsx'
import { FileAdviser } from './FileAdviser.tsx'

/** The drawer of files, abrasives and stones, and the adviser that knows which of them to take. */
export function Tools() {
  const tools = useTools()
  const [editing, setEditing] = useState<{ kind: ToolKind; id: string } | null>(null)
  return (
    <Loaded query={tools}>
      {(rows) => (
        <>
          <FileAdviser tools={rows} />
          {TOOL_KINDS.map((kind) => {
            const mine = rows.filter((t) => t.kind === kind)
            return (
              <section key={kind} className={parts.next}>
                <h2>{TOOL_TITLES[kind]}</h2>
                {mine.length === 0 && <p className="quiet">None is listed yet.</p>}
                {mine.length > 0 && (
                  <Columns
                    label={TOOL_TITLES[kind]}
                    rows={mine}
                    columns={columnsOf(kind, (id) => setEditing({ kind, id }))}
                    keyOf={(t) => t.id}
                  />
                )}
                {editing?.kind === kind ? (
                  <ToolForm
                    key={editing.id}
                    kind={kind}
                    row={mine.find((t) => t.id === editing.id)}
                    onDone={() => setEditing(null)}
                  />
                ) : (
                  <Button mt="sm" variant="default" onClick={() => setEditing({ kind, id: 'new' })}>
                    Put in {kind === 'abrasive' ? 'an' : 'a'} {kind}
                  </Button>
                )}
              </section>
            )
          })}
        </>
      )}
    </Loaded>
  )
}

function columnsOf(kind: ToolKind, onEdit: (id: string) => void): Column<ToolRow>[] {
  const words = (key: 'shape' | 'cut' | 'keptFor' | 'drawer' | 'name', title: string): Column<ToolRow> => ({
    key,
    title,
    value: (t) => t[key],
    show: (t) => t[key],
  })
  const size = (key: 'lengthMm' | 'widthMm' | 'grit', title: string): Column<ToolRow> => ({
    key,
    title,
    value: (t) => t[key],
    show: (t) => t[key] ?? '–',
  })
  return [
    {
      key: 'worn',
      title: 'How worn',
      value: (t) => t.worn,
      show: (t) => (
        <>
          <Mark state={t.worn === 'worn' ? 'watch' : 'sound'} /> {t.worn}
        </>
      ),
    },
    ...(kind === 'file'
      ? [words('shape', 'Shape'), words('cut', 'Cut'), size('lengthMm', 'Length, mm'), size('widthMm', 'Width, mm')]
      : [words('name', 'Name'), size('grit', 'Grit')]),
    words('keptFor', 'Kept for'),
    { key: 'hard', title: 'Hard steel', value: (t) => (t.hard ? 'yes' : ''), show: (t) => (t.hard ? 'yes' : '') },
    words('drawer', 'Drawer'),
    {
      key: 'change',
      show: (t) => <ChangeRow what={toolWords(t)} onEdit={() => onEdit(t.id)} />,
    },
  ]
}

/** "hand file, cut 2, 150 mm" */
function toolWords(t: ToolRow): string {
  return t.kind === 'file'
    ? `${t.shape} file, cut ${t.cut}, ${t.lengthMm ?? '?'} × ${t.widthMm ?? '?'} mm`
    : `${t.name || t.kind}, ${t.grit ?? '?'}`
}

function ToolForm({ kind, row, onDone }: { kind: ToolKind; row: ToolRow | undefined; onDone: () => void }) {
  const kept = useMemo(() => row ?? blankTool(uuid(), kind), [kind, row])
  return (
    <DrawerForm<ToolChange>
      path="tools"
      schema={ToolChange}
      row={kept}
      isNew={row === undefined}
      draft={`tool ${row?.id ?? kind}`}
      takeOut="Take it out"
      onDone={onDone}
    >
      {(form, number) => (
        <>
          {kind === 'file' ? (
            <>
              <NativeSelect label="Shape" data={[...FILE_SHAPES]} {...form.getInputProps('shape')} />
              <NativeSelect label="Cut" data={[...FILE_CUTS]} {...form.getInputProps('cut')} />
              {number('lengthMm', 'Length, without tang')}
              {number('widthMm', 'Width')}
            </>
          ) : (
            number('grit', 'Grit', '')
          )}
          <TextInput label="Name" {...form.getInputProps('name')} />
          <NativeSelect label="Kept for" data={[...KEPT_FOR]} {...form.getInputProps('keptFor')} />
          <NativeSelect label="How worn" data={['new', 'good', 'worn']} {...form.getInputProps('worn')} />
          <TextInput label="Drawer" {...form.getInputProps('drawer')} />
          <TextInput label="Note" {...form.getInputProps('note')} />
          <Checkbox size="md" label="For hard steel" {...form.getInputProps('hard', { type: 'checkbox' })} />
        </>
      )}
    </DrawerForm>
  )
}
