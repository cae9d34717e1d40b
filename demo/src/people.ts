/** Invented people of many origins. */
export const instructors: readonly { name: string; email: string }[] = [
  'Sunniva Drake',
  'Okwudili Marsh',
  'Ines Carvalho-Roe',
  'Tomasz Wieland',
  'Hinemoa Pryor',
  'Ravi Sundaresan-Holt',
  'Aputi Sorenvik',
  'Leocadia Brandt',
  'Farrukh Oyelaran',
  'Maren Thistlewood',
  'Jun Haverkamp',
  'Siobhan Quarrie',
  'Dragan Ellingsen',
  'Wanjiru Petrossian',
  'Bettina Skarsgate',
  'Elio Narvaez-Lund',
  'Katya Broadwater',
  'Mikkel Tanaraq',
  'Yusra Fairleigh',
  'Cormac Delacroix-Ibe',
  'Noor Vandersloot',
  'Pilar Hjort',
  'Augustin Keawe',
  'Greta Omondi',
].map((name) => ({
  name,
  email: `${name.toLowerCase().replace(/[^a-z]+/g, '.')}@kestrelsound.example`,
}))

export type Role = 'designer' | 'contributor' | 'instructor' | 'reviewer' | 'administrator'

/** Demo sign-ins. The password is the same for all and printed at the start. */
export const signIns: readonly {
  name: string
  email: string
  roles: Role[]
  departments: string[]
}[] = [
  { name: 'Ingrid Okafor', account: 'designer' as const },
  { name: 'Bram Castellanos', account: 'contributor' as const },
  { name: 'Halima Strand', account: 'reviewer' as const },
  { name: 'Petra Lindqvist-Mbeki', account: 'administrator' as const },
  ...instructors.slice(0, 6).map((person) => ({ ...person, account: 'instructor' as const })),
].map(({ account, ...person }) => ({
  email: `${account}@kestrelsound.example`,
  ...person,
  roles: [account],
  departments: [],
}))
export const demoPassword = 'fair-winds-2026'
