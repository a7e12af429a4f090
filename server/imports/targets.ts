import type { ImportTarget } from '~~/core/import/targets'
import { importTargets } from '~~/shared/import'
import type { Module } from '~~/shared/modules'
import { ownFields } from '../records/fields'
import { allStages } from '../records/stages'

/** What columns of a file can become in a module of this firm. */
export const targetsOf = async (module: Module): Promise<ImportTarget[]> =>
  importTargets(module, await ownFields(), (await allStages(module)).map(({ name }) => name))
