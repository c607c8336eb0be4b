import { Page } from './Page'
import { TextLink } from './TextLink'

/** What stands where a group is not there for the reader. */
export const NoSuchGroup = () => (
  <Page title="There is no such group, or you are not in it">
    <TextLink to="/">Back to the wall</TextLink>
  </Page>
)
