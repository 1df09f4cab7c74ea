/** Words as a drawing may hold them: without line breaks and other control characters, which XML and DXF forbid. */
export function printable(words: string): string {
  return words.replace(/[\p{Cc}\p{Cs}\u2028\u2029\ufffe\uffff]+/gu, ' ')
}
