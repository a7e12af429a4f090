import type { Holdings } from '~~/shared/people'
import type { SignedIn } from './sign-in'

/** What a room of the house does when a colleague leaves: says what of theirs it has, and gives it to somebody else. */
export interface HandsOn {
  count: (colleagueId: string) => Promise<Partial<Holdings>>
  /** In the transaction in which they leave. */
  handOn: (asker: SignedIn, from: string, to: SignedIn, now: Date) => Promise<void>
}
