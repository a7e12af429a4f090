import type { WallMoment } from '../core/hours/schedule'
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

/** What a text was made of that has been taken back, for the composer. */
export interface TakenBack {
  text: string
  pictureIds: string[]
  templateId: string | null
  templateVersion: number | null
  /** The one that may stand in its words; another text gets another one. */
  ref: string | null
  /** When it was to leave, of one that was to leave later. */
  later: WallMoment | null
}
