import { practiceCarrier, type PracticeAccess } from './practice'
import type { Carrier } from './port'

/** Every carrier that this Plauder can use. A new one is a file with its adapter, and a line here. */
export const carriersFor = (access: PracticeAccess): Carrier[] => [practiceCarrier(access)]
