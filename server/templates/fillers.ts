import { makeFiller, type Filler } from '~~/core/template/fill'

/** A parsed wording holds some eighty times its own size: all that are kept together stay below some tens of megabytes. */
const MOST_CHARACTERS = 300_000

/** Parsed templates by their wording, which is what they depend on; used last comes last. */
const fillers = new Map<string, Filler>()
let characters = 0

/** A template's filler, parsed once; of many, those that were not used for longest are forgotten. */
export function fillerOf(body: string): Filler {
  const filler = fillers.get(body) ?? makeFiller(body)
  if (!fillers.delete(body)) characters += body.length
  fillers.set(body, filler)
  for (const [oldest] of fillers) {
    if (characters <= MOST_CHARACTERS || oldest === body) break
    fillers.delete(oldest)
    characters -= oldest.length
  }
  return filler
}

/** How many wordings are kept, and how long they are together. */
export const kept = () => ({ wordings: fillers.size, characters })
