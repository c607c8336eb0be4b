import { Desk } from '../../ui/Desk'
import { LetterKeys } from '../../ui/LetterKeys'

const keys: readonly [string, string][] = [
  ['[  and  ]', 'earlier, later'],
  ['.', 'now'],
  ['Alt+1…5', 'roster, week, day, month, agenda'],
  ['N', 'new event'],
  ['/', 'find'],
  ['P', 'print'],
  ['F', 'gaps: when all of those in view are free'],
  ['K', 'clashes in the weeks ahead'],
  ['W', 'who is free at a time'],
  ['Arrows', 'on the roster, from cell to cell; Enter makes something in the one you are on'],
  ['Tab', 'from brick to brick'],
  ['Enter', 'opens the brick'],
  ['Space', 'marks it; what comes next is for all that are marked'],
  ['Delete', 'deletes what is marked'],
  [
    'M',
    'takes the brick up; arrows move it (on the roster up and down hand it to another row), Shift with arrows lengthens it, Enter puts it down, Ctrl+Enter a copy of it, Esc lets it be',
  ],
  ['L', 'to the shelf'],
  ['Z', 'undo; what was done before this page, or elsewhere, is named first'],
  ['Esc', 'closes the desk'],
  ['?', 'this list'],
]

/** All keys. */
export function KeyList({ onClose }: { onClose: () => void }) {
  return (
    <Desk title="Keys" onClose={onClose}>
      <div className="mb-4">
        <LetterKeys />
      </div>
      <dl className="grid grid-cols-[4rem_1fr] gap-y-2">
        {keys.map(([key, what]) => (
          <div key={key} className="col-span-2 grid grid-cols-subgrid">
            <dt className="font-bold">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Desk>
  )
}
