/** What other features may show of this one. */
export { everyText } from './everyText'
export { LookAtWeb } from './LookAtWeb'
export { WebPart } from './WebPart'
export { makeWebCalendar, type WebLook } from './webCalendarQueries'
