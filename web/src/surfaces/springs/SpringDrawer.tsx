import type { StockRow } from '@treadle/contract'
import type { chooseMainspring } from '@treadle/core'
import { Button } from '@mantine/core'
import { Link } from 'react-router'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'

/** The mainsprings of the drawers: those that fit, nearest in strength first, and why each other does not. */
export function SpringDrawer({
  stock,
  choice,
  chosen,
  onTake,
}: {
  stock: StockRow[]
  choice: ReturnType<typeof chooseMainspring>
  chosen: string | null
  onTake: (s: StockRow) => void
}) {
  const of = (id: string) => stock.find((s) => s.id === id)
  const words = (s: StockRow) =>
    `${s.widthMm} × ${s.thickMm} × ${s.lengthMm} mm${s.drawer === '' ? '' : `, drawer ${s.drawer}`}`
  return (
    <section aria-label="Mainsprings of the drawers">
      <h3 className={parts.next}>
        From the <Link to="/drawers/mainsprings">drawers</Link>
      </h3>
      {choice.fits.length === 0 && <p>None fits: order one as the old one was.</p>}
      <ul className={parts.list}>
        {choice.fits.map((id) => {
          const s = of(id)
          return (
            s && (
              <li key={id}>
                <Mark state="sound" label="fits" />
                <span className={parts.grow}>{words(s)}</span>
                <Button variant={id === chosen ? 'filled' : 'default'} size="compact-md" onClick={() => onTake(s)}>
                  {id === chosen ? 'Chosen' : 'Choose'}
                </Button>
              </li>
            )
          )
        })}
        {choice.whyNot.map(({ id, why }) => {
          const s = of(id)
          return (
            s && (
              <li key={id}>
                <Mark state="none" label="does not fit" />
                <span className={parts.grow}>
                  {words(s)} <span className="quiet">{why}</span>
                </span>
              </li>
            )
          )
        })}
      </ul>
    </section>
  )
}
