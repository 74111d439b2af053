import { computed, ref, shallowRef, watch } from 'vue'

import { api, type Answer, type Proposal, type Sockets } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'

/** Where a socket is, as the value of a menu: device and port, which hold no space. */
const place = (value: string) => {
  const [device = '', port = ''] = value.split(' ')
  return { device, port }
}

/** Two sockets of the job, chosen from menus or pointed at, answered as a typed line is. */
export function useConnect() {
  const job = useJob()
  const { problem, ask } = useLatest()
  const asked = useLatest()
  const sockets = shallowRef<readonly Sockets[]>([])
  const answer = shallowRef<Answer | null>(null)
  const from = ref('')
  const to = ref('')
  const length = ref('')

  watch(
    () => [job.newest?.job, job.newest?.revision],
    ([id]) =>
      void asked.ask(
        async () => (id ? await api.sockets(String(id)) : []),
        (found) => (sockets.value = found),
      ),
    { immediate: true },
  )
  watch([from, to, length, () => job.newest?.revision], () => {
    const id = job.newest?.job
    void ask(
      async () =>
        id && from.value && to.value
          ? await api.join(id, {
              sending: place(from.value),
              receiving: place(to.value),
              length_m: Number(length.value) > 0 ? Number(length.value) : null,
            })
          : null,
      (found) => (answer.value = found),
    )
  })

  async function take(proposal: Proposal) {
    if (!(await job.edit(proposal.edits))) return
    from.value = to.value = length.value = ''
  }
  return {
    sockets,
    answer,
    from,
    to,
    length,
    take,
    problem: computed(() => problem.value || asked.problem.value),
  }
}
