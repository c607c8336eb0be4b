import type { Schema } from '../../api/client'
import { momentText } from '../../reader/dates'

/** That mails one had written wait, or were given up. */
export function MailNote({ mails }: { mails: Schema['InboxMailsBody'] }) {
  return (
    <>
      {mails.givenUp.length > 0 && (
        <p role="status" className="written mb-3 border-l-4 border-clash bg-surface p-3">
          {mails.givenUp.length === 1 ? 'A mail of yours was' : `${mails.givenUp.length} mails of yours were`}{' '}
          given up, since nobody took {mails.givenUp.length === 1 ? 'it' : 'them'} for days:{' '}
          {mails.givenUp.map((subject) => `“${subject}”`).join(', ')}. Look at the address, or tell them in
          another way.
        </p>
      )}
      {mails.nextTry && (
        <p role="status" className="mb-3 border-l-4 border-clash bg-surface p-3">
          {mails.count === 1 ? 'A mail of yours waits' : `${mails.count} mails of yours wait`}: the mail
          server does not take {mails.count === 1 ? 'it' : 'them'} now. Nothing is lost; Mortar tries again by
          itself, next on {momentText(mails.nextTry)}.
        </p>
      )}
    </>
  )
}
