import type { DeviceWish } from './deviceQueries'

/** What a device may, as it is chosen and as it is told. */
export const deviceSteps = [
  { value: 'edit', label: 'all that I may', told: 'reads and writes' },
  { value: 'view', label: 'read all that I see', told: 'reads only' },
  { value: 'outline', label: 'read titles and places', told: 'reads titles and places only' },
  { value: 'times', label: 'read when it is busy', told: 'reads only when it is busy' },
] as const satisfies readonly { value: DeviceWish['role']; label: string; told: string }[]

export type DeviceStep = (typeof deviceSteps)[number]['value']

export const toldOf = (role: DeviceWish['role']) =>
  deviceSteps.find((step) => step.value === role)?.told ?? ''
