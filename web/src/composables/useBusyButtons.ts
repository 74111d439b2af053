import { onScopeDispose, watch } from 'vue'

import { changesBegun, isChanging } from '@/api/connection'

/**
 * A button that was pressed is busy until what it began is answered: pressed again meanwhile, it does nothing. One that is
 * meant to be pressed several times in a row says so: `data-repeats`.
 */
export function useBusyButtons() {
  const busy = new Set<HTMLButtonElement>()

  function press(event: MouseEvent) {
    const button = event.target instanceof Element ? event.target.closest('button') : null
    if (!button || 'repeats' in button.dataset) return
    if (busy.has(button)) {
      event.preventDefault()
      event.stopImmediatePropagation()
      return
    }
    const before = changesBegun()
    // When those who listen to the button have heard of it.
    setTimeout(() => {
      if (changesBegun() === before || !isChanging.value) return
      busy.add(button)
      button.setAttribute('aria-busy', 'true')
    })
  }

  watch(isChanging, (isStill) => {
    if (isStill) return
    busy.forEach((button) => button.removeAttribute('aria-busy'))
    busy.clear()
  })
  window.addEventListener('click', press, { capture: true })
  onScopeDispose(() => window.removeEventListener('click', press, { capture: true }))
}
