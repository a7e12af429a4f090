/** Work that broke too often and waits for an admin. Instants are epoch milliseconds. */
export interface StuckJob {
  id: string
  /** What is done there, in words. */
  what: string
  kind: string
  failures: number
  /** What broke, without anybody's words. */
  why: string
  since: number
}

/** Something that a carrier or an exchange told us and nobody here could take. */
export interface StuckEvent {
  id: string
  from: string
  why: string
  /** As it was told. */
  told: string
  at: number
  /** Whether it can be read once more. */
  again: boolean
}

export interface Stuck { jobs: StuckJob[], events: StuckEvent[] }
