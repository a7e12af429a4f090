/** For this long a text waits before it leaves, so that it can be taken back, in milliseconds; a firm can set it otherwise. */
export const TAKE_BACK_MS = 5_000

/** What somebody has written and not sent. */
export interface KeptDraft {
  /** `record …`, `conversation …`, or `note …` for a note on a record, by its id. */
  key: string
  text: string
  templateId: string | null
  templateVersion: number | null
  ref: string
  pictureIds: string[]
  at: number
  recordId: string | null
  /** Whom it is for: a name, or a number that is on no record. */
  name: string | null
}
