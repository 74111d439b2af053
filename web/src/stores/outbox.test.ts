import { beforeEach, describe, expect, it } from 'vitest'
import { computed } from 'vue'

import { drop, kept, nextOrder, put, type Kept } from './outbox'
import { shelf } from './shelf.testing'

interface Word extends Kept {
  readonly text: string
}
const word = (id: string, text: string, box = 'walk-w'): Word => ({ box, id, order: nextOrder(), text })
const texts = (box = 'walk-w') => kept<Word>(box).map(({ text }) => text)

describe('outbox', () => {
  beforeEach(() => shelf.clear())

  it('keeps the later of two under one id, and the oldest first', () => {
    const [first, other] = [word('a', 'first'), word('b', 'other')]
    for (const item of [other, first, word('a', 'second')]) put(item)
    expect(texts()).toEqual(['other', 'second'])
  })

  it('leaves what has taken the place of the one that is answered', () => {
    const first = word('a', 'first')
    const second = word('a', 'second')
    put(first)
    put(second)
    drop(first)
    expect(texts()).toEqual(['second'])
    drop(second)
    expect(texts()).toEqual([])
  })

  it('keeps boxes apart, and whoever shows one is told', () => {
    const shown = computed(() => texts().length)
    expect(shown.value).toBe(0)
    put(word('a', 'mine'))
    put(word('a', 'theirs', 'walk-x'))
    expect([shown.value, texts('walk-x')]).toEqual([1, ['theirs']])
  })
})
