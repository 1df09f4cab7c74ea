import { useLayoutEffect, useState, type RefObject } from 'react'

/** How far from the top of the page an element begins, px. */
export function useTopOf(element: RefObject<HTMLElement | null>): number {
  const [top, setTop] = useState(0)
  useLayoutEffect(() => {
    const measure = () => setTop((element.current?.getBoundingClientRect().top ?? 0) + window.scrollY)
    const watch = new ResizeObserver(measure)
    watch.observe(document.body)
    return () => watch.disconnect()
  }, [element])
  return top
}
