/** Input that cannot be used: what, where and what was expected. Ends the command with exit code 2. */
export class Unusable extends Error {}
