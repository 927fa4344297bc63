import { useEffect, useState } from 'react'

/** Whether something is dragged, and its setter; what is let go anywhere is dragged no more. */
export function useDragging(): [boolean, (dragged: boolean) => void] {
  const [dragged, dragging] = useState(false)
  // what is dragged may be drawn anew under the pointer and never hear that it is let go
  useEffect(() => {
    if (!dragged) return
    const drop = () => dragging(false)
    const ends = ['pointerup', 'pointercancel', 'blur'] as const
    for (const end of ends) window.addEventListener(end, drop)
    return () => {
      for (const end of ends) window.removeEventListener(end, drop)
    }
  }, [dragged])
  return [dragged, dragging]
}
