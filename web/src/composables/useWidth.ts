import { onScopeDispose, ref, watch, type Ref } from 'vue'

/** How wide an element is, as it changes; 0 until it is there. */
export function useWidth(element: Readonly<Ref<HTMLElement | null>>) {
  const width = ref(0)
  const observer = new ResizeObserver(([entry]) => entry && (width.value = entry.contentRect.width))
  watch(element, (now, before) => {
    if (before) observer.unobserve(before)
    if (now) observer.observe(now)
  })
  onScopeDispose(() => observer.disconnect())
  return width
}
