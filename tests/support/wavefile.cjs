// Node gives this package's CommonJS build as a default export; compiled to CommonJS, Jest would look for one inside of it.
module.exports = { __esModule: true, default: require('../../node_modules/wavefile/dist/wavefile.js') }
