export * from './planDeployment.ts'
