/** How somebody signs in. */
export interface SecondStep {
  /** Since when a code is asked for after the password (instant); null: none is. */
  since: number | null
  /** How many of those that let in without the app are unused. */
  codesLeft: number
  /** It can be set up here. */
  possible: boolean
}

/** For an app: what it makes codes of, as letters and as what its picture says. */
export interface SecondStepOffer { secret: string, uri: string }

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
