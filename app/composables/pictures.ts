import { v7 as uuid } from 'uuid'
import { MOST_BYTES_IN, type PictureFacts } from '~~/shared/pictures'
import { api } from '~/composables/api'
import { firstProblem, problemIn } from '~/composables/trying'

/**
 * Pictures of a text that is being written: each goes to the server at once, which makes it small.
 *
 * @param ids those that the draft holds
 */
export function usePictures(ids: Ref<string[]>) {
  const comingIn = ref(0)
  const problem = ref('')

  async function add(files: Iterable<File>): Promise<void> {
    problem.value = ''
    for (const file of files) await addOne(file)
  }

  async function addOne(file: File): Promise<void> {
    if (file.type && !file.type.startsWith('image/')) {
      problem.value = `${file.name} is no picture, and texts carry nothing else. Take a picture of it, or send its link.`
      return
    }
    if (file.size > MOST_BYTES_IN) {
      problem.value = `${file.name || 'The picture'} has more than ${MOST_BYTES_IN / 1e6} MB. Make it smaller first.`
      return
    }
    comingIn.value++
    try {
      const { id } = await api<PictureFacts>(`/api/pictures/${uuid()}`, { method: 'PUT', body: file })
      ids.value = [...ids.value, id]
    }
    catch (error) {
      problem.value = firstProblem(problemIn(error))
    }
    finally {
      comingIn.value--
    }
  }

  async function remove(id: string): Promise<void> {
    problem.value = ''
    ids.value = ids.value.filter(other => other !== id)
    // one that stays there is forgotten by itself after a while
    await api(`/api/pictures/${id}`, { method: 'DELETE' }).catch(() => undefined)
  }

  /** Files that were pasted or dropped. Of those that are no pictures it is said why they cannot go. */
  const among = (data: DataTransfer | null) => [...data?.files ?? []]

  return { comingIn, problem, add, remove, among }
}
