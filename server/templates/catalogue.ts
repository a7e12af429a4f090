import type { Field } from '~~/core/template/fields'
import { fieldsOf } from '~~/shared/fields'
import { MODULE_FACTS, type PersonModule } from '~~/shared/modules'
import { ownFields } from '../records/fields'

/** The fields that each module's templates may use, under the module's name for people. */
export async function catalogueOf(modules: readonly PersonModule[]): Promise<Record<string, Field[]>> {
  const custom = await ownFields()
  return Object.fromEntries(modules.map(module => [MODULE_FACTS[module].many.toLowerCase(), fieldsOf(module, custom)]))
}
