/** One place where I am signed in. Instants are epoch milliseconds. */
export interface OwnSignIn {
  id: string
  device: string
  address: string
  madeAt: number
  endsAt: number
  /** In this browser. */
  here: boolean
}
