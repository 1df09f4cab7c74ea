import { SegmentedControl } from '@mantine/core'
import { useSearchParams } from 'react-router'
import { useJobData } from '../../job/useJobData.ts'
import { Baths } from './Baths.tsx'
import { InPlace } from './InPlace.tsx'

/** Cleaning: in the shop, into the baths that each part can bear; or in place, at the owner’s house. */
export function CleanSurface() {
  const { observations } = useJobData()
  const [search, setSearch] = useSearchParams()
  const begun = observations.some((o) => o.key.startsWith('in-place'))
  const where = search.get('where') ?? (begun ? 'house' : 'shop')
  return (
    <>
      <SegmentedControl
        aria-label="Where it is cleaned"
        value={where}
        onChange={(to) => setSearch({ where: to }, { replace: true })}
        data={[
          { value: 'shop', label: 'On the bench, in pieces' },
          { value: 'house', label: 'In place, at the owner’s house' },
        ]}
        mb="sm"
      />
      {where === 'house' ? <InPlace /> : <Baths />}
    </>
  )
}
