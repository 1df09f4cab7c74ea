import type { PhotoRow } from '@treadle/contract'
import type { Pixel } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useRef, type MouseEvent } from 'react'
import styles from './Plates.module.css'
import { useFinePhoto } from './useFinePhoto.ts'
import { useZoom } from './useZoom.ts'

/** A photo as it was taken, moved and enlarged at will, on which points are tapped. */
export function RawPhoto({ photo, points, onTap }: { photo: PhotoRow; points: Pixel[]; onTap: (at: Pixel) => void }) {
  const fine = useFinePhoto(photo.id)
  const svg = useRef<SVGSVGElement>(null)
  const group = useRef<SVGGElement>(null)
  const { by } = useZoom(({ k }) => fine.lookAt(k), svg, group)
  const tap = (event: MouseEvent) => {
    const matrix = group.current?.getScreenCTM()
    if (!matrix) return
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
    if (x >= 0 && y >= 0 && x <= photo.width && y <= photo.height) onTap({ x, y })
  }
  const unit = Math.max(photo.width, photo.height) / 100
  return (
    <>
      <svg
        ref={svg}
        viewBox={`0 0 ${photo.width} ${photo.height}`}
        className={styles.raw}
        role="group"
        aria-label="The photo as it was taken: tap the points on it"
        onClick={tap}
      >
        <g ref={group}>
          <image href={fine.url} width={photo.width} height={photo.height} preserveAspectRatio="none" />
          {points.map((p, i) => (
            <g key={i} transform={`translate(${p.x} ${p.y})`}>
              <circle r={unit} className={styles.pin} strokeWidth={unit / 3} />
              <path
                d={`M${-unit * 2} 0H${unit * 2}M0 ${-unit * 2}V${unit * 2}`}
                className={styles.pin}
                strokeWidth={unit / 5}
              />
              <text x={unit * 1.5} y={-unit * 1.5} fontSize={unit * 3} fill="var(--madder)">
                {i + 1}
              </text>
            </g>
          ))}
        </g>
      </svg>
      <Group gap="xs" mt="xs">
        <Button variant="default" size="sm" onClick={() => by(1.5)}>
          Larger
        </Button>
        <Button variant="default" size="sm" onClick={() => by(1 / 1.5)}>
          Smaller
        </Button>
      </Group>
    </>
  )
}
