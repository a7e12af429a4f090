import type { Field } from '~~/core/template/fields'
import { fillInFields, type FillIn } from '~~/core/template/fill-ins'
import { templateFieldsOf } from '~~/shared/fields'
import { MODULE_FACTS, type TextedModule } from '~~/shared/modules'
import { ownFields } from '../records/fields'

/** The fields that each module's templates may use, under the module's name for people; with a template's own fill-ins. */
export async function catalogueOf(modules: readonly TextedModule[], fillIns: FillIn[] = []): Promise<Record<string, Field[]>> {
  const custom = await ownFields()
  return Object.fromEntries(
    modules.map(module => [MODULE_FACTS[module].many.toLowerCase(), [...fillInFields(fillIns), ...templateFieldsOf(module, custom)]]),
  )
}
