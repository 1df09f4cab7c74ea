import { type NextMove, type RateBook, turnFraction, turnInWords } from '@treadle/core'
import { Button } from '@mantine/core'
import { count, whenAbout } from '../../parts/say.ts'
import { NutPicture } from './NutPicture.tsx'
import styles from './Rate.module.css'

/** What to do with the nut, and when to read again; or why neither can be said. */
export function Advice({
  book,
  move,
  stands,
  onTurned,
  onLaid,
}: {
  book: RateBook
  move: NextMove
  /** what was done last is in it: it can’t be done once more by a second press */
  stands: boolean
  onTurned: (turns: number) => void
  onLaid: (grams: number) => void
}) {
  const turn = turnInWords(book)
  const next = book.nextReadingAtS === null ? null : whenAbout(book.nextReadingAtS * 1000)
  return (
    <>
      {move.what === 'weight' && (
        <>
          <p className={styles.instruction}>
            {move.grams > 0 ? 'Lay' : 'Take'} {Math.abs(move.grams).toFixed(1)} g {move.grams > 0 ? 'on' : 'off'} the
            tray
          </p>
          <p>
            The pendulum need not be stopped for it. It then {move.leavesSecondsPerDay >= 0 ? 'gains' : 'loses'}{' '}
            {Math.abs(move.leavesSecondsPerDay).toFixed(2)} s a day, as far as its rate is known.
          </p>
          <Button variant="default" mb="md" disabled={!stands} onClick={() => onLaid(move.grams)}>
            Done, {Math.abs(move.grams).toFixed(1)} g {move.grams > 0 ? 'laid on' : 'taken off'}
          </Button>
          {turn !== null && <p className="quiet">Or by the nut:</p>}
        </>
      )}
      {turn !== null && book.move !== null ? (
        <>
          <p className={styles.instruction}>
            {turn}, to the {book.move === 'raise' ? 'right' : 'left'}
          </p>
          <div className={styles.turn}>
            <NutPicture turns={book.suggestedTurns} move={book.move} />
            <div>
              <p className={styles.fraction}>{turnFraction(book.suggestedTurns)} turn</p>
              <p className="quiet">
                {book.suggestedTurns.toFixed(2)} ± {Math.max(0.01, book.suggestedTurnsStandardError ?? 0).toFixed(2)},
                to the nearest eighth you can see. Seen from below;{' '}
                {book.move === 'raise' ? 'the bob goes up' : 'the bob goes down: lower is slower'}.
              </p>
              <Button
                variant="default"
                mt="xs"
                disabled={!stands}
                onClick={() =>
                  onTurned(
                    (book.move === 'raise' ? 1 : -1) * (Math.round(book.suggestedTurns * 8) / 8 || book.suggestedTurns),
                  )
                }
              >
                Done, {turnFraction(book.suggestedTurns)} turned
              </Button>
            </div>
          </div>
        </>
      ) : (
        move.what !== 'weight' && <p className={styles.instruction}>{NO_TURN[book.advice]}</p>
      )}
      {book.secondsPerDayPerTurn !== null && book.perTurnStandardError !== null && (
        <p className={styles.rule}>
          <b>
            This clock gains {book.secondsPerDayPerTurn.toFixed(book.perTurnStandardError < 1 ? 1 : 0)} ±{' '}
            {book.perTurnStandardError.toFixed(book.perTurnStandardError < 1 ? 1 : 0)} s a day for a whole turn.
          </b>
          <br />
          {book.priorSecondsPerDayPerTurn !== null &&
            `By its thread and length it should be ${book.priorSecondsPerDayPerTurn.toFixed(1)}. `}
          {book.turnsLearntFrom === 0
            ? 'No turn has taught more yet.'
            : `${count(book.turnsLearntFrom, 'turn has', 'turns have')} taught the rest.`}
        </p>
      )}
      {next !== null && (
        <p className={styles.rule}>
          <b>{next === 'now' ? 'A reading is worth taking now.' : `Then leave it be until ${next}.`}</b>
          <br />
          Sooner, a reading could not tell the change from chance.
        </p>
      )}
      <details className={styles.rule}>
        <summary>Show the reckoning</summary>
        Straight lines are fitted to the readings between one change and the next, each reading weighed by how good it
        is. Between turns of the nut the lines differ by the turns times one figure, which begins as 43,200 × pitch /
        length. A turn is proposed only when the rate stands two standard errors from nought. Lower is slower.
      </details>
    </>
  )
}

const NO_TURN: Record<RateBook['advice'], string> = {
  turn: '',
  'within-tolerance': 'Leave the nut alone: it keeps time as well as this workshop asks',
  'not-told-from-zero': 'Leave the nut alone: the readings can’t tell its rate from nought yet',
  'too-few-readings': 'Leave the nut alone: too few readings since the last change',
  'nut-unknown': 'Give the pitch of the nut and the length of the pendulum under Arrive, and it says how far to turn',
  doubted: 'Leave the nut alone: first see to the reading that does not belong',
  'beyond-the-nut': 'No nut turns so far: is it the right pendulum, and is its count right?',
}
