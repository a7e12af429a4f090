/** A mail to one colleague. */
export interface Letter {
  /** The same at each attempt, so that what comes twice can be told. */
  id: string
  to: { name: string, address: string }
  subject: string
  text: string
}

/** By what mails leave. */
export interface Post {
  /** Where browsers reach Plauder, for the links in mails: `https://plauder.firm.example`. */
  home: string
  /** Hands a mail over for delivery. `refused` is for good, such as for an address that there is not; `away` is for now. */
  send: (letter: Letter) => Promise<'sent' | 'refused' | 'away'>
}

let post: Post | null = null

/** Null where this Plauder mails nothing. */
export function registerPost(registered: Post | null): void {
  post = registered
}

export const thePost = (): Post | null => post
