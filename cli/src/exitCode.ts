export const exitCode = { fine: 0, openMusts: 1, unusable: 2, untold: 3 } as const
