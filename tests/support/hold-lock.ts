// A process that takes the lock of a folder, says whether it got it, and holds it until it is killed.
import { lockFolder } from '../../server/db/folder-lock'

lockFolder(process.argv[2]!).then(
  () => {
    process.stdout.write('holds\n')
    setInterval(() => {}, 1_000)
  },
  () => process.stdout.write('refused\n'),
)
