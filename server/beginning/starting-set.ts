import { v7 as uuid } from 'uuid'
import { STARTING_SETS, type StartingSetKey } from '~~/shared/starting-sets'
import { tx } from '../db/door'
import { customField, disposition } from '../db/schema'
import { layPipelines } from '../records/lay-pipelines'

/** Lays what a new firm of this trade begins with: stages, fields, and how calls end. */
export async function layStartingSet(key: StartingSetKey): Promise<void> {
  const { pipelines, fields, dispositions } = STARTING_SETS[key]
  await layPipelines(pipelines)
  await tx(async (database) => {
    await database.insert(customField).values(fields.map((field, position) => ({ ...field, id: uuid(), position })))
    await database
      .insert(disposition)
      .values(dispositions.flatMap(({ modules, ...one }, position) => modules.map(module => ({ ...one, id: uuid(), module, position }))))
  })
}
