import { Component, type ReactNode } from 'react'
import { Page } from '../ui/Page'

/** Catches what no screen expects, so that nobody is left with an empty page. */
export class Fallback extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false }

  static getDerivedStateFromError() {
    return { failed: true }
  }

  override render() {
    if (!this.state.failed) return this.props.children
    return (
      <Page title="Something on this screen went wrong">
        <p className="mb-4">Nothing of what was saved is lost.</p>
        <a href="/" className="underline underline-offset-2">
          Load Mortar again
        </a>
      </Page>
    )
  }
}
