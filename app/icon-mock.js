const React = require('react')

module.exports = { __esModule: true, default: (props) => React.createElement('span', { 'data-icon': props.name }) }
