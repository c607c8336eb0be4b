import { fieldProblem } from '../../api/problem'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import type { SettingsProps } from './settingsProps'

/** What stands above it. */
export function TextFields({ wish, error, onChange }: SettingsProps) {
  return (
    <fieldset className="grid gap-3">
      <legend className="sr-only">Words</legend>
      <TextField
        label="Title"
        value={wish.title ?? ''}
        onChange={(title) => onChange({ title })}
        problem={fieldProblem(error, 'title')}
        autoFocus={!wish.title}
      />
      <TextArea
        label="Words under it"
        rows={3}
        value={wish.words ?? ''}
        onChange={(words) => onChange({ words })}
        problem={fieldProblem(error, 'words')}
        hint="Where you are, whom to ask, what to bring."
      />
    </fieldset>
  )
}
