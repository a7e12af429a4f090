/** What everybody who texts reads before, and whether the reader has. */
export interface TermsToRead { terms: { version: number, words: string, madeAt: number } | null, unread: boolean }

export interface SetUpTexting {
  /** Everybody may text, and not admins alone. */
  on: boolean
  /** The newest version; null where none was saved yet. */
  version: number | null
  words: string
  /** The version that each colleague has read last; null if none. */
  readers: { id: string, name: string, version: number | null, at: number | null }[]
  versions: { version: number, madeAt: number, by: string }[]
}

/** What a firm may begin with, to be put into its own words. */
export const STARTING_TERMS = `Text people who expect to hear from us: they asked, applied, bought, or said yes.

Whoever writes STOP, in whatever words, is texted no more. Do not text them from another line, or from a telephone of your own.

Say who you are. Write as you would speak to them, and nothing that they would not want read over their shoulder.

No passwords, card numbers, diagnoses, or reasons why somebody was not taken.

Answer what comes in, or hand it to somebody who does.

Everything stays on the record: colleagues read it, and the person may ask for it.`
