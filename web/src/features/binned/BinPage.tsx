import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { Page } from '../../ui/Page'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { BinCard } from './BinCard'
import { binQuery } from './binQueries'
import { fits } from './binWords'

/** From how many entries on there is a field to find one by. */
const many = 6

/** What was deleted and can be brought back. */
export function BinPage() {
  const bin = useQuery(binQuery)
  const [sought, setSought] = useState('')
  const found = (bin.data ?? []).filter((entry) => fits(entry, sought))
  return (
    <Page title="Bin">
      {bin.isError && <p role="alert">{sentenceOf(bin.error)}</p>}
      {bin.data?.length === 0 && (
        <p className="text-cement-700">
          Nothing here. Events, dates, calendars and proposed times that you could change wait here for 30
          days once they are deleted. <TextLink to="/">Back to the wall</TextLink>
        </p>
      )}
      {bin.data && bin.data.length > 0 && (
        <p className="mb-4 text-cement-700">
          What was deleted waits here for 30 days and comes back as it was. Then it goes for good.
        </p>
      )}
      {bin.data && bin.data.length >= many && (
        <div className="mb-4 max-w-sm">
          <TextField label="Find by title, calendar or person" value={sought} onChange={setSought} />
        </div>
      )}
      {bin.data && bin.data.length > 0 && found.length === 0 && (
        <p className="text-cement-700">Nothing in the bin fits “{sought}”.</p>
      )}
      <ul className="grid gap-3">
        {found.map((entry) => (
          <BinCard
            key={`${entry.place.kind} ${entry.place.act} ${entry.place.id} ${entry.place.calendarId}`}
            entry={entry}
          />
        ))}
      </ul>
    </Page>
  )
}
