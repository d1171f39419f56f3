import { type ResultTable, type Statement, tableTitle } from '@yperkine/core'
import { useState } from 'react'
import { useWorkbench } from '../store'
import { TableRows } from './TableRows'

interface Props {
  line: Statement
  name: string
}

const useTable = <T,>({ line, name }: Props, select: (table: ResultTable) => T): T | undefined =>
  useWorkbench((s) => {
    const table = s.evaluation.lines.get(line.id)?.tables?.find((t) => tableTitle(t) === name)
    return table && select(table)
  })

/** A table under its button; closed, its rows are not even made. */
export function ResultTableView(props: Props) {
  const [open, setOpen] = useState(useTable(props, (t) => t.open) ?? false)
  const close = () => setOpen((now) => !now)
  if (open) return <OpenTable {...props} onClose={close} />
  return (
    <div className="mt-1.5 mr-1.5 inline-block">
      <Head {...props} open={false} onPress={close} />
    </div>
  )
}

function Head({ open, onPress, ...of }: Props & { open: boolean; onPress: () => void }) {
  const count = useTable(of, (t) => t.count)
  return (
    <button type="button" className="pill" aria-expanded={open} onClick={onPress}>
      {of.name} · {count}
    </button>
  )
}

/** Nothing is shown of a table that has just gone. */
function OpenTable({ onClose, ...of }: Props & { onClose: () => void }) {
  const table = useTable(of, (t) => t)
  if (!table) return null
  return (
    <TableRows line={of.line} table={table}>
      <Head {...of} open onPress={onClose} />
    </TableRows>
  )
}
