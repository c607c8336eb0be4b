/** What other features may show of this one. */
export { LookAtWeb } from './LookAtWeb'
export { WebPart } from './WebPart'
export { makeWebCalendar, type WebLook } from './webCalendarQueries'
