/**
 * What lies on the wall, and over it what is in the hand: each laid out by itself, so that the one that moves does not
 * have thousands of others laid out again.
 */
export const layer = 'absolute inset-0 contain-layout contain-size contain-style'
export const overAll = `${layer} pointer-events-none z-5`
