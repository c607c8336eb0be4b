import type { Settings } from './noticeboardQueries'

/** What every part of the settings is given. */
export interface SettingsProps {
  wish: Settings
  error: unknown
  onChange: (part: Partial<Settings>) => void
}
