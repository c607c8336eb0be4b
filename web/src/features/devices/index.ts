/** What other features may show of this one. */
export { DevicesPart } from './DevicesPart'
