import { isMatterModule, isPersonModule, type Module } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import { api } from './api'

interface Named { id: string, name: string }

/** What a new record begins with, from where it was asked for. */
export interface RecordStart {
  phone?: string | null
  people?: Named[]
  company?: Named | null
  about?: Named | null
  pipelineId?: string | null
  stageId?: string | null
}

/** A record made from another one: for the same person, of the same company, on the same deal. */
export async function startFrom(recordId: string): Promise<RecordStart> {
  return startOf(await api<RecordDetail>(`/api/records/${recordId}`))
}

function startOf({ id, name, module, company, people }: Pick<RecordDetail, 'id' | 'name' | 'module' | 'company' | 'people'>): RecordStart {
  const self = { id, name }
  if (isPersonModule(module)) return { people: [self], company }
  if (module === 'company') return { company: self }
  return {
    company,
    people: people.map(person => ({ id: person.id, name: person.name })),
    about: isMatterModule(module as Module) ? self : null,
  }
}
