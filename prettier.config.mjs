export default { semi: false, singleQuote: true, printWidth: 140, trailingComma: 'all' }
