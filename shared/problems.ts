/** Problem details as in RFC 9457, the one shape of every error answer. */
export interface ProblemDetails {
  /** A short name of the kind of problem, relative to this interface's reference. */
  type: string
  title: string
  status: number
  /** What is wrong, why, and what to do, for the person who reads it. */
  detail: string
  /** Messages by the path of the field they belong to. */
  fields?: Record<string, string>
  [more: string]: unknown
}
