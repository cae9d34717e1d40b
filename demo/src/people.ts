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
export const signIns: readonly { name: string; email: string; role: Role }[] = [
  { name: 'Ingrid Okafor', email: 'designer@kestrelsound.example', role: 'designer' },
  { name: 'Bram Castellanos', email: 'contributor@kestrelsound.example', role: 'contributor' },
  { name: 'Halima Strand', email: 'reviewer@kestrelsound.example', role: 'reviewer' },
  {
    name: 'Petra Lindqvist-Mbeki',
    email: 'administrator@kestrelsound.example',
    role: 'administrator',
  },
  ...instructors.slice(0, 6).map((person) => ({ ...person, role: 'instructor' as const })),
]
export const demoPassword = 'fair-winds-2026'
