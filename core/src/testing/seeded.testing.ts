import * as fc from 'fast-check'
import { propertyRuns } from './propertyRuns.testing.ts'

// Every property draws its cases from one seed, also where it says nothing of it: what was green yesterday is green today.
fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: propertyRuns().seed })
