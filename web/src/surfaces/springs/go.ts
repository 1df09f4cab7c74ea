/** On from one train's drive to the next, and back. */
export interface Go {
  next: string | undefined
  onNext: () => void
  onBack: () => void
}
