import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { drop } from '../exchange/dropped'
import { filesOf } from '../exchange/filesOf'

/** Files may be dropped on any page; what a page does not want for itself is looked at on a page of its own. */
export function DropAnywhere() {
  const [over, setOver] = useState(false)
  const go = useNavigate()
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false
    const onOver = (event: DragEvent) => {
      if (!hasFiles(event)) return
      // a page that takes files itself says so in its own place
      setOver(!event.defaultPrevented)
      event.preventDefault()
    }
    const onLeave = (event: DragEvent) => {
      // only where the pointer leaves the window
      if (event.relatedTarget === null) setOver(false)
    }
    const onDrop = (event: DragEvent) => {
      setOver(false)
      if (event.defaultPrevented || !event.dataTransfer || !hasFiles(event)) return
      event.preventDefault()
      void filesOf(event.dataTransfer).then((files) => {
        if (files.length === 0) return
        drop(files)
        void go('/take-in')
      })
    }
    window.addEventListener('dragover', onOver)
    window.addEventListener('dragleave', onLeave)
    window.addEventListener('drop', onDrop)
    return () => {
      window.removeEventListener('dragover', onOver)
      window.removeEventListener('dragleave', onLeave)
      window.removeEventListener('drop', onDrop)
    }
  }, [go])
  return over ? <div className="dropping">Drop it to look at what it is.</div> : null
}
