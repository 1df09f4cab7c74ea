import { centreFound, formatClockDirection, type MeshDepth } from '@treadle/core'
import { useSettings } from '../../data/queries.ts'
import { Mark } from '../../parts/Mark.tsx'
import { signed } from '../../parts/say.ts'
import type { Movement } from '@treadle/core'
import { DepthPicture } from './DepthPicture.tsx'
import styles from '../../job/plates/Plates.module.css'

/** The depth of every mesh from both its holes: run in the wear, after the plan, and bushed in the middle of the slots. */
export function Depths({ movement }: { movement: Movement }) {
  const { data: settings } = useSettings()
  const limit = settings?.bushing.depthPercent ?? 10
  const rows = movement.trains.flatMap((train) => {
    const { worn, true: planned, middle } = movement.depths(train)
    return worn.map((w, i) => ({ train, worn: w, planned: planned[i], middle: middle[i] }))
  })
  if (rows.length === 0)
    return (
      <p className="quiet">
        The depth of the gearing is told once two arbors of a train have their places, and the train its counts.
      </p>
    )
  const worst = rows.reduce((a, b) => (Math.abs(b.worn.percentOfModule) > Math.abs(a.worn.percentOfModule) ? b : a))
  return (
    <>
      <h2>Depth of the gearing</h2>
      {worst.planned && worst.middle && Math.abs(worst.worn.percentOfModule) > 1 && (
        <>
          <p className="quiet">
            {worst.worn.driver} and {worst.worn.driven}, the mesh that suffers most; shifts drawn four times as large.
          </p>
          <DepthPicture depths={{ worn: worst.worn, true: worst.planned, middle: worst.middle }} />
        </>
      )}
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Mesh</th>
            <th scope="col">Module</th>
            <th scope="col">Run in its wear</th>
            <th scope="col">After the plan</th>
            <th scope="col">Bushed in the middle of the slots instead</th>
            <th scope="col">Centres</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ train, worn, planned, middle }) => (
            <tr key={`${train.train} ${worn.driven}`}>
              <th scope="row">
                {worn.driver} – {worn.driven}
              </th>
              <td>{worn.moduleMm.toFixed(3)} mm</td>
              <Shift depth={worn} limit={limit} />
              <Shift depth={planned} limit={limit} />
              <Shift depth={middle} limit={limit} spoils />
              <td>
                <Centres train={train} driven={worn.driven} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        Plus is apart, along the line of centres, as a share of the module; {limit} % is this workshop’s most. A bush in
        the middle of a worn slot keeps half the wear for good: that is why the old centre is found first.
      </p>
    </>
  )
}

function Shift({ depth, limit, spoils = false }: { depth: MeshDepth | undefined; limit: number; spoils?: boolean }) {
  if (!depth) return <td>not told</td>
  const over = Math.abs(depth.percentOfModule) > limit
  const near = Math.abs(depth.percentOfModule) > limit / 2
  return (
    <td className={over ? styles.spoilt : undefined}>
      <Mark
        state={over ? 'must' : near && spoils ? 'watch' : 'sound'}
        label={over ? (spoils ? 'spoilt' : 'too much') : 'within'}
      />{' '}
      {signed(depth.depthShiftMm, 2)} mm, {signed(depth.percentOfModule, 0)} %
    </td>
  )
}

/** The centre distance as found against the one that counts and a measured wheel ask for. */
function Centres({ train, driven }: { train: Movement['trains'][number]; driven: string }) {
  const centre = centreFound(train, driven)
  if (!centre) return <span className="quiet">the wheel is not measured</span>
  const { computedMm, foundMm, moveMm, clockAngleDeg, off } = centre
  return (
    <>
      <Mark state={off ? 'must' : 'sound'} label={off ? 'off its centre' : 'right'} /> {foundMm.toFixed(2)}, by the
      wheel {computedMm.toFixed(2)}
      {off && `: ${Math.abs(moveMm).toFixed(2)} mm toward ${formatClockDirection(clockAngleDeg)}`}
    </>
  )
}
