import type { EstimateRow } from '@treadle/contract'
import { Button } from '@mantine/core'
import { useNavigate } from 'react-router'
import { useSettings, useTable } from '../data/queries.ts'
import { useMovement } from './useMovement.ts'
import { useJobData } from './useJobData.ts'
import { useRows } from './useRows.ts'
import { linesFromJob, merged, newRevision } from './estimateFromJob.ts'

/** Puts the plan into the estimate by the workshop’s prices: into the draft, or as the next revision of what the owner has. */
export function PriceThePlan() {
  const data = useJobData()
  const rows = useRows<EstimateRow>('estimates')
  const navigate = useNavigate()
  const { data: settings } = useSettings()
  const { data: prices } = useTable('prices')
  const { data: ways } = useTable('ways')
  const movement = useMovement()
  if (!settings || !prices || !ways || !movement) return null
  const last = data.estimates.at(-1)
  const price = () => {
    const found = linesFromJob(prices.values, data, settings, movement, ways.values.ways)
    const base =
      last?.state === 'draft' ? last : newRevision(last, prices.values, data, settings, movement, ways.values.ways)
    rows.put(
      { ...base, lines: merged(base.lines, found, ways.values.ways) },
      () => void navigate(`/jobs/${data.job.id}/estimate`),
    )
  }
  return (
    <>
      <Button variant="default" onClick={price} loading={rows.pending}>
        {last && last.state !== 'draft' ? 'Price it: a new revision' : 'Price it into the estimate'}
      </Button>
    </>
  )
}
