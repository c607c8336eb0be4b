import { useId, useState } from 'react'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import type { Answer } from './answerQueries'

interface AnswerFormProps {
  /** Who answers, where it is somebody else. */
  name: string | null
  answer: Answer
  comment: string
  isBusy: boolean
  onAnswer: (answer: Answer, comment: string) => void
}

const choices: readonly { value: Answer; label: string }[] = [
  { value: 'accepted', label: 'Yes' },
  { value: 'tentative', label: 'Perhaps' },
  { value: 'declined', label: 'No' },
]

/** Yes, perhaps or no, with a comment. Pressing one is the answer; it can be another at any time. */
export function AnswerForm({ name, answer, comment, isBusy, onAnswer }: AnswerFormProps) {
  const id = useId()
  const [words, setWords] = useState(comment)
  const [open, setOpen] = useState(comment !== '')
  return (
    <fieldset className="grid gap-2" aria-labelledby={id}>
      <p id={id} className="written text-[13px]">
        {name ? `Does ${name} come?` : 'Do you come?'}
      </p>
      <div className="flex flex-wrap gap-2">
        {choices.map((choice) => (
          <Button
            key={choice.value}
            look={answer === choice.value ? 'main' : 'plain'}
            pressed={answer === choice.value}
            disabled={isBusy}
            onClick={() => onAnswer(choice.value, words)}
          >
            {choice.label}
          </Button>
        ))}
        {!open && (
          <button type="button" className="px-1 underline" onClick={() => setOpen(true)}>
            with a word
          </button>
        )}
      </div>
      {open && (
        <TextField
          label="A word with it"
          value={words}
          onChange={setWords}
          placeholder="I come half an hour later"
          autoComplete="off"
        />
      )}
    </fieldset>
  )
}
