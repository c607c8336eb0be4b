/** What other features may show of this one. */
export { ReminderChoice } from './ReminderChoice'
