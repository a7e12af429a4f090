import { availableParallelism } from 'node:os'

/** @type {import('jest').Config} */
export default {
  testEnvironment: 'node',
  globalSetup: '<rootDir>/tests/support/prepare.mjs',
  testTimeout: 60_000,
  // half of the time a test file waits for its database's thread (more than a hundred percent Jest takes for as many workers)
  maxWorkers: Math.ceil(availableParallelism() * 1.5),
  testMatch: ['<rootDir>/tests/{unit,nuxt}/**/*.spec.ts'],
  modulePathIgnorePatterns: ['<rootDir>/\\.'],
  moduleNameMapper: { '^~~/(.*)$': '<rootDir>/$1', '^~/(.*)$': '<rootDir>/app/$1', '^wavefile$': '<rootDir>/tests/support/wavefile.cjs' },
  transform: {
    '^.+\\.(ts|mjs)$': ['@swc/jest', {
      jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
      module: { type: 'commonjs' },
      sourceMaps: 'inline',
    }],
    '^.+/node_modules/(uuid|@trt2|@vueuse)/.+\\.js$': ['@swc/jest', { jsc: { target: 'es2022' }, module: { type: 'commonjs' } }],
  },
  transformIgnorePatterns: ['/node_modules/(?!(uuid|@trt2|@vueuse)/)'],
  reporters: ['default', '<rootDir>/tests/support/count-reporter.cjs'],
  collectCoverageFrom: ['core/**/*.ts'],
}
