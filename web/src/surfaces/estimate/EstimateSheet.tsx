import type { EstimateRow } from '@treadle/contract'
import { estimateSpan, FieldError, revisionChanges, shareOf, type EstimateSpan } from '@treadle/core'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { ClockGlyph } from '../../parts/ClockGlyph.tsx'
import { yearlyWords } from './Choices.tsx'
import paper from '../../parts/paper.module.css'
import styles from './Estimate.module.css'
import { spanWords, timesWords } from '../../job/estimateFromJob.ts'
import { dayLike, dayToday } from '../../parts/say.ts'

/** The estimate as the owner gets it, on the screen and on paper. */
export function EstimateSheet({ estimate, before }: { estimate: EstimateRow; before: EstimateRow | undefined }) {
  const { clock, owner, job } = useJobData()
  const { data: settings } = useSettings()
  const span = spanOf(estimate)
  const { currency } = estimate
  const changes = before && span && spanOf(before) ? revisionChanges(before.lines, estimate.lines) : []
  return (
    <article className={`${paper.sheet} ${paper.sums}`} aria-label="The estimate as the owner gets it">
      <header>
        <div>
          <p className={paper.shop}>
            {[settings?.workshop, settings?.place, settings?.phone].filter(Boolean).join(', ')}
          </p>
          <h1>Estimate</h1>
          <p>
            {clock.name}, for {owner.name}. Job {job.number}, revision {estimate.revision},{' '}
            {dayLike(estimate.sentAt ?? dayToday(), '27 November 2026')}
          </p>
        </div>
        <ClockGlyph kind={clock.kind} />
      </header>
      {estimate.note !== '' && <p className={styles.words}>{estimate.note}</p>}
      <table>
        <tbody>
          {estimate.lines.map((line) => (
            <tr key={line.id} className={line.kind === 'if-needed' ? styles.ifNeeded : undefined}>
              <td>
                {line.title}
                {line.kind === 'if-needed' && ', if needed'}
              </td>
              <td>{timesWords(line)}</td>
              <td>{sumOf(line)}</td>
            </tr>
          ))}
        </tbody>
        {span && (
          <tfoot>
            <tr>
              <th scope="row">Before tax</th>
              <td />
              <td>{spanWords(span.least.net, span.most.net)}</td>
            </tr>
            {Number(estimate.taxPercent) > 0 && (
              <tr>
                <th scope="row">Tax, {estimate.taxPercent} %</th>
                <td />
                <td>{spanWords(span.least.tax, span.most.tax)}</td>
              </tr>
            )}
            <tr className={paper.total}>
              <th scope="row">In all</th>
              <td />
              <td>
                {spanWords(span.least.gross, span.most.gross)} {currency}
              </td>
            </tr>
            {Number(estimate.depositPercent) > 0 && (
              <tr>
                <th scope="row">Of this as a deposit</th>
                <td />
                <td>
                  {shareOf(span.least.gross, estimate.depositPercent)} {currency}
                </td>
              </tr>
            )}
          </tfoot>
        )}
      </table>
      {span === null && <p>A line still lacks its price, or how many times it is taken.</p>}
      {changes.length > 0 && before && (
        <>
          <h2>Changed since revision {before.revision}</h2>
          <ul>
            {changes.map((c) => (
              <li key={`${c.change} ${c.title}`}>
                {c.title}:{' '}
                {c.change === 'added'
                  ? `new, ${c.now}`
                  : c.change === 'dropped'
                    ? `no longer, was ${c.was}`
                    : `${c.was} is now ${c.now}`}
              </li>
            ))}
          </ul>
        </>
      )}
      {estimate.choices.length > 0 && (
        <>
          <h2>What else could be done</h2>
          <div className={styles.beside}>
            {estimate.choices.map((choice) => (
              <div key={choice.key} className={choice.key === estimate.chosen ? styles.chosen : undefined}>
                <strong>{choice.title}</strong>
                <span>
                  {choice.price} {currency}
                </span>
                <span>{yearlyWords(choice, currency)}</span>
                <em>{choice.remark}</em>
              </div>
            ))}
          </div>
        </>
      )}
      <p className={styles.small}>
        What stands as “if needed” is done only when it is found to be so. Should more come to light, you are asked
        before anything is done.
      </p>
      {estimate.answer ? (
        <Signed answer={estimate.answer} />
      ) : (
        <p className={styles.dotted}>Agreed, date and signature</p>
      )}
    </article>
  )
}

function Signed({ answer }: { answer: NonNullable<EstimateRow['answer']> }) {
  return (
    <div className={styles.signed}>
      {answer.how === 'signed' && (
        <svg viewBox="0 0 520 150" width="208" height="60" role="img" aria-label={`Signature of ${answer.by}`}>
          {answer.strokes.map((stroke, i) => (
            <polyline
              key={i}
              points={stroke.map((p) => p.join(',')).join(' ')}
              fill="none"
              stroke="currentColor"
              strokeWidth="2.2"
              strokeLinecap="round"
            />
          ))}
        </svg>
      )}
      <p>
        {answer.by}, {dayLike(answer.at, '27 November 2026')}
        {answer.how === 'signed' ? '' : `, ${answer.how === 'call' ? 'by telephone' : 'in writing'}: ${answer.note}`}
      </p>
    </div>
  )
}

/** What one line comes to: times its price, or from and to. */
function sumOf(line: EstimateRow['lines'][number]): string {
  try {
    const { least, most } = estimateSpan([{ ...line, kind: line.kind === 'if-needed' ? 'fixed' : line.kind }], '0')
    return spanWords(least.net, most.net)
  } catch (error) {
    if (error instanceof FieldError) return '–'
    throw error
  }
}

function spanOf(estimate: EstimateRow): EstimateSpan | null {
  try {
    return estimateSpan(estimate.lines, estimate.taxPercent)
  } catch (error) {
    if (error instanceof FieldError) return null
    throw error
  }
}
