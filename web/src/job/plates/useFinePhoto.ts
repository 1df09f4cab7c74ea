import { useRef, useState } from 'react'

/** Enlarged by so much, the screen’s copy of a photo shows no more than a blur. */
const CLOSE = 1.5

/**
 * The address of a photo to lay under a drawing: the screen’s copy, and the original while it is looked at closely, once
 * the browser has it ready. Both are shown at the copy’s size, so points on one are points on the other.
 */
export function useFinePhoto(id: string | undefined): { url: string; lookAt: (scale: number) => void } {
  const asked = useRef<string>(undefined)
  const [ready, setReady] = useState<string>()
  const [close, setClose] = useState(false)
  return {
    url: `/api/photos/${id ?? ''}/${close && ready === id ? 'original' : 'screen'}`,
    lookAt: (scale) => {
      setClose(scale >= CLOSE)
      if (id === undefined || scale < CLOSE || asked.current === id) return
      asked.current = id
      const original = new Image()
      original.src = `/api/photos/${id}/original`
      original.decode().then(
        () => setReady(id),
        () => undefined,
      )
    },
  }
}
