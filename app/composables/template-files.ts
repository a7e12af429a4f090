import { v7 as uuid } from 'uuid'
import type { TemplateDetail } from '~~/shared/template'
import { api } from '~/composables/api'
import { firstProblem, problemIn } from '~/composables/trying'

/** Templates as a JSON file: an array of what a template is made of, under the names that the interface for programs has. */
const KEPT = ['name', 'description', 'folder', 'modules', 'body', 'fillIns'] as const

export function templatesAsFile(templates: TemplateDetail[]): Blob {
  return new Blob(
    [
      JSON.stringify(
        templates.map(one => Object.fromEntries(KEPT.map(key => [key, one[key]]))),
        null,
        2,
      ),
    ],
    { type: 'application/json' },
  )
}

export interface TakenIn { taken: number, refused: { name: string, reason: string }[] }

/**
 * Takes templates in from such a file, each for oneself until one shares it.
 *
 * @throws Error if it is no such file
 */
export async function takeTemplatesIn(file: File): Promise<TakenIn> {
  const given: unknown = await file.text().then(text => JSON.parse(text) as unknown, () => null).catch(() => null)
  if (!Array.isArray(given)) throw new Error('This is no file of templates. It holds a list of them, as “Export as JSON” writes it.')
  const result: TakenIn = { taken: 0, refused: [] }
  for (const one of given as Record<string, unknown>[]) {
    try {
      await api('/api/templates', { method: 'POST', body: { ...one, id: uuid(), audience: 'mine' } })
      result.taken++
    }
    catch (error) {
      result.refused.push({ name: String(one?.name ?? 'without a name'), reason: firstProblem(problemIn(error)) })
    }
  }
  return result
}
