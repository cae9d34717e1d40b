import { Component, type ReactNode } from 'react'
import { Button, Page, Problem } from '../controls/controls.tsx'

const ours = new Error(
  'This screen failed, which is a fault of ours. What is saved is safe; open it again, and if it fails once more, tell who runs Wickerframe what you did.',
)

/** Keeps the rest of the application there when a screen fails to draw. */
export class Failure extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false }
  static getDerivedStateFromError = () => ({ failed: true })
  override render() {
    if (!this.state.failed) return this.props.children
    return (
      <Page title="Something failed">
        <div className="mt-3">
          <Problem error={ours} />
        </div>
        <div className="mt-4">
          <Button shape="main" onClick={() => this.setState({ failed: false })}>
            Open it again
          </Button>
        </div>
      </Page>
    )
  }
}
