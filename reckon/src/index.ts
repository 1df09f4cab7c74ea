import { BEAT } from './beat.ts'
import { BUSHING } from './bushing.ts'
import { CALENDAR } from './calendar.ts'
import { CLEAN } from './clean.ts'
import { COMPOUND } from './compound.ts'
import { DEPTH } from './depth.ts'
import { DRIVE } from './drive.ts'
import { ESCAPEMENT } from './escapement.ts'
import { ESTIMATE } from './estimate.ts'
import { FILE } from './file.ts'
import { HANDS } from './hands.ts'
import { MOON } from './moon.ts'
import { OIL } from './oil.ts'
import { PENDULUM } from './pendulum.ts'
import { PIVOT } from './pivot.ts'
import { PLATE } from './plate.ts'
import { RATE } from './rate.ts'
import { SPRING } from './spring.ts'
import { STRIKE } from './strike.ts'
import { TRAIN } from './train.ts'
import { TRIAL } from './trial.ts'
import { TROUBLE } from './trouble.ts'
import { WEAR } from './wear.ts'
import { WHEEL } from './wheel.ts'
import type { Calculation } from './calculation.ts'

/** Every calculation that stands on its own, as the command and the Reckoner offer it. */
export const CALCULATIONS: Calculation[] = [
  ...PENDULUM,
  ...COMPOUND,
  ...BEAT,
  ...TRAIN,
  ...BUSHING,
  ...RATE,
  ...DRIVE,
  ...TROUBLE,
  ...CLEAN,
  ...ESTIMATE,
  ...PLATE,
  ...WEAR,
  ...PIVOT,
  ...DEPTH,
  ...SPRING,
  ...WHEEL,
  ...ESCAPEMENT,
  ...FILE,
  ...STRIKE,
  ...HANDS,
  ...MOON,
  ...CALENDAR,
  ...OIL,
  ...TRIAL,
]

export type { Calculation }
