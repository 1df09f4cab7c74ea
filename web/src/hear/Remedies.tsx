import type { Pendulum, Settings } from '@treadle/contract'
import { remediesOf, type Remedy, type Side } from '@treadle/core'
import styles from './Listen.module.css'

/** What puts it in beat: crutch bend, packing or swing of the case, this workshop's first choice first. */
export function Remedies({
  offsetDeg,
  outOfBeatMs,
  pendulum,
  settings,
}: {
  offsetDeg: number
  outOfBeatMs: number
  pendulum: Pendulum
  settings: Settings
}) {
  const { remedies, packs } = remediesOf(
    offsetDeg,
    outOfBeatMs,
    {
      crutchLengthMm: pendulum.crutchLengthMm ?? undefined,
      footSpacingMm: pendulum.footSpacingMm ?? undefined,
      seatSpacingMm: pendulum.seatSpacingMm ?? undefined,
      caseHeightMm: pendulum.caseHeightMm ?? undefined,
    },
    { school: settings.beatSchool, packUpToMs: settings.packUpToMs },
  )
  if (remedies.length === 0)
    return (
      <p className={styles.say}>
        The escapement stands {Math.abs(offsetDeg).toFixed(2)}° to the {offsetDeg > 0 ? 'right' : 'left'}. Give the
        length of the crutch, the distance of the feet or the height of the case under Arrive, and it says how many
        millimetres.
      </p>
    )
  return (
    <>
      {settings.beatSchool === 'adjuster' && (
        <p className={styles.say}>
          Use the adjusting screw or the friction of the crutch first, where there is one: move the foot as below.
        </p>
      )}
      {remedies.map((remedy, i) => (
        <article key={remedy.key} className={styles.remedy}>
          {remedy.key === 'crutch' ? (
            <CrutchGlyph side={remedy.side} />
          ) : (
            <CaseGlyph side={remedy.side} swing={remedy.key === 'swing'} />
          )}
          <div>
            <p className={styles.instruction}>
              {i > 0 && 'or '}
              {words(remedy, i > 0)}
            </p>
            <p className={styles.say}>
              {detail(remedy, pendulum)}
              {i === 0 && ` ${why(settings, packs)}`}
            </p>
          </div>
        </article>
      ))}
      <p className={styles.say}>
        Left and right as seen from the front; from the back they change places. Plumb the case first. Make small bends,
        and listen again after each.
      </p>
    </>
  )
}

function words({ key, mm, side }: Remedy, low: boolean): string {
  const size = `${mm < 10 ? mm.toFixed(1) : mm.toFixed(0)} mm`
  const text = {
    crutch: `Bend the crutch foot ${size} toward the ${side} corner`,
    pack: `Raise the ${side} side ${size}`,
    seat: `Wedge ${size} under the ${side} of the movement`,
    swing: `Swing the bottom of the case ${size} to the ${side}`,
  }[key]
  return low ? text.charAt(0).toLowerCase() + text.slice(1) : text
}

function detail({ key }: Remedy, pendulum: Pendulum): string {
  if (key === 'crutch')
    return 'The corner that you would have to raise to make it even: that holds from the front and from behind. Hold it above the bend, so that the arbor and its pivot take no strain; then the rod must still stand free in the middle of the fork.'
  if (key === 'seat')
    return `Under the seat board, its bearers ${pendulum.seatSpacingMm} mm apart; the case stays as it is.`
  if (key === 'pack') return `Feet ${pendulum.footSpacingMm} mm apart.`
  return `Case ${pendulum.caseHeightMm} mm high, on its hook.`
}

function why(settings: Settings, packs: boolean): string {
  if (settings.beatSchool === 'size')
    return packs
      ? `This workshop packs up to ${settings.packUpToMs} ms.`
      : `This workshop bends for more than ${settings.packUpToMs} ms.`
  return settings.beatSchool === 'pack' ? 'This workshop packs first.' : 'This workshop sets the beat by the crutch.'
}

function CrutchGlyph({ side }: { side: Side }) {
  return (
    <svg
      viewBox="0 0 100 120"
      className={styles.glyph}
      aria-hidden="true"
      style={{ scale: side === 'left' ? '1' : '-1 1' }}
    >
      <g fill="none" stroke="var(--ink)" strokeWidth="2">
        <circle cx="62" cy="12" r="7" />
        <path d="M62 20v84" strokeDasharray="2 5" />
        <g stroke="var(--steel)" strokeWidth="5">
          <path d="M62 20v38L46 96M36 108V98h20v10" />
        </g>
        <path d="M50 114H14m9-7-9 7 9 6" stroke="var(--madder)" strokeWidth="2.5" />
      </g>
    </svg>
  )
}

function CaseGlyph({ side, swing }: { side: Side; swing: boolean }) {
  return (
    <svg
      viewBox="0 0 100 120"
      className={styles.glyph}
      aria-hidden="true"
      style={{ scale: side === 'left' ? '1' : '-1 1' }}
    >
      <g fill="none" stroke="var(--ink)" strokeWidth="2">
        <g transform={swing ? 'rotate(4 58 8)' : 'rotate(3 88 104)'}>
          <path d="M28 12h60v88H28z" />
          <circle cx="58" cy="42" r="21" />
        </g>
        {swing ? <circle cx="58" cy="7" r="4" /> : <path d="M4 110h92" />}
        {!swing && <path d="M14 110l24 -6v6z" fill="var(--steel)" stroke="none" />}
        <path
          d={swing ? 'M44 116H12m9-7-9 7 9 6' : 'M12 100V66m-7 9 7-9 7 9'}
          stroke="var(--madder)"
          strokeWidth="2.5"
        />
      </g>
    </svg>
  )
}
