/** A state as a shape: a ring (sound), a half disc (watch), a filled disc (must), a barbed triangle (danger). */
export function Mark({ state, label }: { state: 'sound' | 'watch' | 'must' | 'danger' | 'none'; label?: string }) {
  const colour = {
    sound: 'var(--verdigris)',
    watch: 'var(--amber)',
    must: 'var(--madder)',
    danger: 'var(--madder)',
    none: 'var(--quiet)',
  }[state]
  return (
    <svg
      viewBox="0 0 16 16"
      width="16"
      height="16"
      style={{ flex: 'none' }}
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
    >
      {state === 'sound' && <circle cx="8" cy="8" r="5" fill="none" stroke={colour} strokeWidth="2.4" />}
      {state === 'watch' && (
        <>
          <circle cx="8" cy="8" r="6" fill="none" stroke={colour} strokeWidth="1.6" />
          <path d="M8 2a6 6 0 0 1 0 12z" fill={colour} />
        </>
      )}
      {state === 'must' && <circle cx="8" cy="8" r="6.5" fill={colour} />}
      {state === 'danger' && <path d="M8 1 15 14H9l-1-3-1 3H1z" fill={colour} />}
      {state === 'none' && <path d="M3 8h10" stroke={colour} strokeWidth="2" />}
    </svg>
  )
}
