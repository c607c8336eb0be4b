/** What would become of a brick where its calendar is brought back to a moment. */
export type BrickFate = 'comes' | 'goes' | 'movesHere' | 'movesAway' | 'changes'

export const fateWords: Record<BrickFate, string> = {
  comes: 'would come back',
  goes: 'would go to the bin',
  movesHere: 'would move here',
  movesAway: 'would move away from here',
  changes: 'would be as it was',
}
