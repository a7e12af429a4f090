let lastAskedAt = -Infinity

/** Somebody asks for something. */
export function noteAsked(): void {
  lastAskedAt = performance.now()
}

/** For how long nobody has asked this process for anything, in milliseconds: long work makes room while people are about. */
export const quietFor = (): number => performance.now() - lastAskedAt

/** Whoever asked since some work was begun has the database for as long as that took; if nobody did, it goes on at once. */
export async function giveWay(begun: number): Promise<void> {
  const took = performance.now() - begun
  if (quietFor() < took) await new Promise(resolve => setTimeout(resolve, took))
}
