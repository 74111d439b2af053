import { onMounted, shallowRef } from 'vue'

import { api, wordsOf, type PieceChange, type Stock, type Trunk } from '@/api/client'
import { useAttempt } from '@/composables/useAttempt'

/** What lies in the trunk, and what is done to it. after: what hangs on it and has to be looked at anew. */
export function useStock(after: () => Promise<unknown> = () => Promise.resolve()) {
  const stock = shallowRef<Stock | null>(null)
  const { problem, isBusy, attempt: one } = useAttempt()

  async function look() {
    try {
      stock.value = await api.stock()
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }

  /** Whether it was done. */
  const attempt = async (action: () => Promise<Stock | Trunk | null>) =>
    (await one(async () => {
      const found = await action()
      if (found && 'pieces' in found) stock.value = found
      await after()
      return true
    })) ?? false

  const actions = {
    add: (line: string) => attempt(() => api.addToTrunk(line)),
    read: (text: string) => attempt(() => api.readTrunkTable(text)),
    change: (piece: string, change: PieceChange) => attempt(() => api.changePiece(piece, change)),
    remove: (piece: string) => attempt(() => api.removePieces([piece])),
    photograph: (piece: string, file: File) => attempt(() => api.photographPiece(piece, file)),
    forgetPhoto: (piece: string) => attempt(() => api.removePiecePhoto(piece)),
    use: (pieces: readonly string[]) => {
      const piece = stock.value?.pieces.find(({ id }) => pieces.includes(id))
      return piece ? attempt(() => api.usePiece(piece.id, piece.count)) : Promise.resolve(false)
    },
    looked: () => attempt(() => api.stock()),
  }
  onMounted(() => void look())
  return { stock, problem, isBusy, attempt, actions }
}

export type StockActions = ReturnType<typeof useStock>['actions']
