let lastAskedAt = -Infinity

/** Somebody asks for something. */
export function noteAsked(): void {
  lastAskedAt = performance.now()
}

/** For how long nobody has asked this process for anything, in milliseconds: long work makes room while people are about. */
export const quietFor = (): number => performance.now() - lastAskedAt
