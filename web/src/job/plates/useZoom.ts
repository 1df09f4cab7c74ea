import { select } from 'd3-selection'
import { zoom, zoomIdentity, type ZoomBehavior, type ZoomTransform } from 'd3-zoom'
import { useEffect, useRef, type RefObject } from 'react'
import { useLatest } from '../../parts/useLatest.ts'

export interface Zoom {
  by: (factor: number) => void
  move: (dx: number, dy: number) => void
  whole: () => void
}

/**
 * Moves and enlarges a drawing by touch, wheel and keys. The group is moved by itself, without drawing anything anew;
 * `onZoom` moves what else must follow.
 *
 * @param group - what is moved: a group of the drawing `svg`
 */
export function useZoom(
  onZoom: (transform: ZoomTransform) => void,
  svg: RefObject<SVGSVGElement | null>,
  group: RefObject<SVGGElement | null>,
): Zoom {
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown>>(null)
  const follow = useLatest(onZoom)
  useEffect(() => {
    if (!svg.current) return
    const it = select(svg.current)
    behaviour.current = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.6, 20])
      .clickDistance(6)
      .on('zoom', ({ transform }: { transform: ZoomTransform }) => {
        group.current?.setAttribute('transform', transform.toString())
        follow.current(transform)
      })
    it.call(behaviour.current).on('dblclick.zoom', null)
    return () => void it.on('.zoom', null)
  }, [svg, group, follow])
  const act = (how: (it: ZoomBehavior<SVGSVGElement, unknown>) => void) => behaviour.current && how(behaviour.current)
  return {
    by: (factor) => act((z) => svg.current && z.scaleBy(select(svg.current), factor)),
    move: (dx, dy) => act((z) => svg.current && z.translateBy(select(svg.current), dx, dy)),
    whole: () => act((z) => svg.current && z.transform(select(svg.current), zoomIdentity)),
  }
}
