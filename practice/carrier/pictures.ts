import { mkdirSync } from 'node:fs'
import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'

export interface Picture { type: string, file: string }

const ENDINGS: Record<string, string> = { 'image/jpeg': 'jpg', 'image/png': 'png', 'image/gif': 'gif' }

/** Pictures on their way, each a file of its own; the journal holds their names. */
export class Pictures {
  private readonly folder: string

  constructor(folder: string) {
    this.folder = join(folder, 'pictures')
    mkdirSync(this.folder, { recursive: true })
  }

  async keep(id: string, wished: { type: string, base64: string }[]): Promise<Picture[]> {
    return Promise.all(wished.map(async ({ type, base64 }, place) => {
      const file = `${id}-${place}.${ENDINGS[type]!}`
      await writeFile(join(this.folder, file), Buffer.from(base64, 'base64'))
      return { type, file }
    }))
  }

  /** The bytes of a picture, or null for a name that is none. */
  async read(file: string): Promise<Buffer | null> {
    return /^[\w-]+\.(jpg|png|gif)$/.test(file) ? readFile(join(this.folder, file)).catch(() => null) : null
  }
}

export const isPictureType = (type: string) => type in ENDINGS
