import { BATH_KINDS } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  line,
  measured,
  moment,
  only,
  ruled,
  requiredLine,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'

/** A part on the cleaning list, by what it is made of. */
export const CleanPart = only({
  id: id(),
  version: version(),
  name: requiredLine(120).label('Part'),
  material: requiredLine(40).label('Material'),
  finish: line(40).defined().label('Finish'),
  done: boolean().required().label('Done'),
})
export type CleanPart = InferType<typeof CleanPart>
export type CleanPartRow = CleanPart & { jobId: string; at: string; who: string; whoId?: string | null }

/** A bath or a rinse that runs; it ends at its own time whether a page is open or not. */
export const Timer = ruled(
  only({
    id: id(),
    version: version(),
    title: requiredLine(120).label('What runs'),
    startedAt: moment().label('Started'),
    endsAt: moment().label('Ends'),
    stopped: boolean().required().label('Stopped'),
    /** the bath it is of, and which of its steps: 0 the bath itself, then what follows at once */
    bath: line(40).defined(),
    step: measured(0, 10).integer().required(),
  }),
  [
    'ends',
    'Ends: it must end after it started, within two days',
    (timer) => {
      const span = Date.parse(timer.endsAt) - Date.parse(timer.startedAt)
      return span > 0 && span <= 2 * 86_400_000
    },
  ],
)
export type Timer = InferType<typeof Timer>
/** A bath that runs, as every page knows of it. */
export type RunningTimer = Pick<Timer, 'id' | 'title' | 'endsAt'> & { jobId: string; clock: string }
export type TimerRow = Timer & { jobId: string; who: string; whoId?: string | null }

export const Bath = only({
  key: requiredLine(40).label('Name'),
  title: requiredLine(80).label('Bath'),
  kind: string().oneOf(BATH_KINDS).required().label('What kind of bath'),
  minutes: measured(0.5, 2000).required().label('Minutes'),
  then: array(
    only({ title: requiredLine(120).label('Then'), minutes: measured(0.5, 2000).required().label('Minutes') }),
  )
    .max(5)
    .required(),
  caution: text(600).defined().label('Caution'),
})
