import { useEffect } from 'react'

/**
 * The paper that this page prints on, while it is shown: a CSS page size and margin.
 *
 * Named pages would each begin with an empty sheet, so there is one rule at a time.
 */
export function usePaper(size: string, margin: string): void {
  useEffect(() => {
    const rule = document.createElement('style')
    rule.textContent = `@page { size: ${size}; margin: ${margin} }`
    document.head.append(rule)
    return () => rule.remove()
  }, [size, margin])
}
