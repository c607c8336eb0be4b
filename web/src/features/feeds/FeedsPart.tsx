import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { roleName } from '../../model/ladder'
import { momentText } from '../../reader/dates'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Note } from '../../ui/Note'
import { Question } from '../../ui/Question'
import { useAct } from '../../undo/useAct'
import { endFeed, type Feed, feedsQuery, type MadeFeed, renewFeed } from './feedQueries'
import { MadeFeedNote } from './MadeFeedNote'
import { NewFeedForm } from './NewFeedForm'

/** One's feeds: addresses at which other calendar programs read what one sees here. */
export function FeedsPart() {
  const feeds = useQuery(feedsQuery)
  const [made, setMade] = useState<MadeFeed | null>(null)
  return (
    <section
      id="feeds"
      aria-label="In other calendar programs"
      className="mx-auto max-w-2xl px-6 py-6 max-sm:px-3"
    >
      <h2 className="mb-1 text-xl">In other calendar programs</h2>
      <Note>
        An address that your phone or another program reads by itself. Whoever has it reads along; end it
        where it got into wrong hands.
      </Note>
      {feeds.isError && <Alert>{sentenceOf(feeds.error)}</Alert>}
      <ul className="my-3 grid gap-2">
        {feeds.data?.map((feed) => (
          <FeedLine key={feed.id} feed={feed} onMade={setMade} />
        ))}
      </ul>
      {made?.url && <MadeFeedNote made={made} onClose={() => setMade(null)} />}
      <NewFeedForm onMade={setMade} />
    </section>
  )
}

function FeedLine({ feed, onMade }: { feed: Feed; onMade: (made: MadeFeed | null) => void }) {
  const [isEnding, setEnding] = useState(false)
  const name = feed.name ?? 'something you do not see any more'
  const renew = useAct({
    run: () => renewFeed(feed.id),
    say: () => `“${name}” has another address now; the old one leads nowhere.`,
    isFinal: () => true,
    freshen: ['feeds'],
    onDone: onMade,
  })
  const end = useAct({
    run: () => endFeed(feed.id),
    say: () => `Ended the feed of “${name}”.`,
    isFinal: () => true,
    freshen: ['feeds'],
    onDone: () => onMade(null),
  })
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border border-cement-300 bg-surface px-3 py-2">
      <span className="written min-w-0 flex-1">
        <strong>{name}</strong>, {roleName(feed.role)}
        <span className="block text-[12px] text-cement-700">
          {feed.readAt ? `last read ${momentText(feed.readAt)}` : 'not read yet'}
        </span>
      </span>
      <Button onClick={() => renew.mutate()}>New address</Button>
      <Button look="danger" onClick={() => setEnding(true)}>
        End it
      </Button>
      {isEnding && (
        <Question
          title={`End the feed of “${name}”?`}
          yes="End it"
          onYes={() => end.mutate()}
          onClose={() => setEnding(false)}
        >
          Programs that read it get nothing any more. The calendar stays as it is.
        </Question>
      )}
    </li>
  )
}
