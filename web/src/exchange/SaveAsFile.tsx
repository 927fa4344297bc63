import { useState } from 'react'
import type { Kind } from '../open-document/documents'
import { PacketDialog } from './PacketDialog'

/** The way to save one document as a file. */
export function SaveAsFile({ what, kind, id }: { what: string; kind: Kind; id: string }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <button className="link" onClick={() => setOpen(true)}>
        save as a file …
      </button>
      {open && <PacketDialog what={what} ids={[id]} alone={{ kind, id }} onClose={() => setOpen(false)} />}
    </>
  )
}
