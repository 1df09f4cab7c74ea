/** A refused request, as RFC 9457 has it. */
export interface Problem {
  type: string
  title: string
  status: number
  detail?: string
  errors?: FieldProblem[]
  /** with 409: the row as it stands now */
  current?: unknown
}

export interface FieldProblem {
  field: string
  message: string
}
