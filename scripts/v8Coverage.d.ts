declare module '@bcoe/v8-coverage' {
  /** What of a script was reached, as V8 tells it. */
  export interface ScriptCov {
    scriptId: string
    url: string
    functions: {
      functionName: string
      isBlockCoverage: boolean
      ranges: { startOffset: number; endOffset: number; count: number }[]
    }[]
  }
  /** What several runs of one script reached together. */
  export const mergeScriptCovs: (scripts: readonly ScriptCov[]) => ScriptCov | undefined
}
